import { lazyPart } from '@/ui';

export default lazyPart(() => import('@/areas/show/ShowPage').then(({ ShowPage }) => ShowPage));
