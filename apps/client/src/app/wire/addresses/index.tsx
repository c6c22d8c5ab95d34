export { AddressesPage as default } from '@/areas/wire/addresses/AddressesPage';
