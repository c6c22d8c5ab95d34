export { AdapterPage as default } from '@/areas/wire/adapters/AdapterPage';
