import { lazyPart } from '@/ui';

export default lazyPart(() => import('@/areas/rig/types/TypePage').then(({ TypePage }) => TypePage));
