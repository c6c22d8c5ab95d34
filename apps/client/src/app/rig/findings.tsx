import { lazyPart } from '@/ui';

export default lazyPart(() => import('@/areas/rig/FindingsPage').then(({ FindingsPage }) => FindingsPage));
