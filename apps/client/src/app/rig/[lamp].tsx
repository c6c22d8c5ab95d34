import { lazyPart } from '@/ui';

export default lazyPart(() => import('@/areas/rig/LampPage').then(({ LampPage }) => LampPage));
