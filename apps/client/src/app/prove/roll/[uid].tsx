import { lazyPart } from '@/ui';

export default lazyPart(() => import('@/areas/prove/roll/SeenLampPage').then(({ SeenLampPage }) => SeenLampPage));
