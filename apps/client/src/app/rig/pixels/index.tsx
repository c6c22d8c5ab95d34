import { lazyPart } from '@/ui';

export default lazyPart(() => import('@/areas/rig/pixels/PixelsPage').then(({ PixelsPage }) => PixelsPage));
