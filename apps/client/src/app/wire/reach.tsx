import { lazyPart } from '@/ui';

export default lazyPart(() => import('@/areas/wire/ReachPage').then(({ ReachPage }) => ReachPage));
