export { PortsPage as default } from '@/areas/wire/machine/PortsPage';
