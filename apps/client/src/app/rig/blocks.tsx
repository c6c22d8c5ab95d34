import { lazyPart } from '@/ui';

export default lazyPart(() => import('@/areas/rig/BlocksPage').then(({ BlocksPage }) => BlocksPage));
