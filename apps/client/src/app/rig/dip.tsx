import { lazyPart } from '@/ui';

export default lazyPart(() => import('@/areas/rig/DipPage').then(({ DipPage }) => DipPage));
