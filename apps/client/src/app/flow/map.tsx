import { lazyPart } from '@/ui';

export default lazyPart(() => import('@/areas/flow/routes/MapPage').then(({ MapPage }) => MapPage));
