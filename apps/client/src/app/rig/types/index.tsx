import { lazyPart } from '@/ui';

export default lazyPart(() => import('@/areas/rig/types/TypesPage').then(({ TypesPage }) => TypesPage));
