import { lazyPart } from '@/ui';

export default lazyPart(() => import('@/areas/wire/adapters/AdaptersPage').then(({ AdaptersPage }) => AdaptersPage));
