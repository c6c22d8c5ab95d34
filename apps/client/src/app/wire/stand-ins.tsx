import { lazyPart } from '@/ui';

export default lazyPart(() => import('@/areas/wire/StandInsPage').then(({ StandInsPage }) => StandInsPage));
