export { EditMachine as default } from '@/areas/wire/machine/EditMachine';
