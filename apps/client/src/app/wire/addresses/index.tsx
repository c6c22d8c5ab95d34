import { lazyPart } from '@/ui';

export default lazyPart(() =>
  import('@/areas/wire/addresses/AddressesPage').then(({ AddressesPage }) => AddressesPage),
);
