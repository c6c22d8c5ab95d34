export { SameComputerPage as default } from '@/areas/wire/adapters/SameComputerPage';
