import { lazyPart } from '@/ui';

export default lazyPart(() => import('@/areas/prove/walk/WalkPage').then(({ WalkPage }) => WalkPage));
