import { lazyPart } from '@/ui';

export default lazyPart(() =>
  import('@/areas/wire/adapters/SameComputerPage').then(({ SameComputerPage }) => SameComputerPage),
);
