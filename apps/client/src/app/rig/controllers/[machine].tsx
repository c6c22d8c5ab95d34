import { lazyPart } from '@/ui';

export default lazyPart(() => import('@/areas/rig/pixels/ControllerPage').then(({ ControllerPage }) => ControllerPage));
