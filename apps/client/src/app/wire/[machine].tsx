export { MachinePage as default } from '@/areas/wire/machine/MachinePage';
