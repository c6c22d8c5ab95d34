import { lazyPart } from '@/ui';

export default lazyPart(() => import('@/areas/wire/adapters/AdapterPage').then(({ AdapterPage }) => AdapterPage));
