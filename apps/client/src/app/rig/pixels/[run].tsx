import { lazyPart } from '@/ui';

export default lazyPart(() => import('@/areas/rig/pixels/RunPage').then(({ RunPage }) => RunPage));
