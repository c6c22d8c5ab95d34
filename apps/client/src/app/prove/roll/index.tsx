import { lazyPart } from '@/ui';

export default lazyPart(() => import('@/areas/prove/roll/RollPage').then(({ RollPage }) => RollPage));
