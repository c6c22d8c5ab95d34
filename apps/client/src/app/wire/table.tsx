export { PortTable as default } from '@/areas/wire/PortTable';
