export { NetworkPage as default } from '@/areas/wire/addresses/NetworkPage';
