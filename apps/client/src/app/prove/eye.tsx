import { lazyPart } from '@/ui';

export default lazyPart(() => import('@/areas/prove/eye/EyePage').then(({ EyePage }) => EyePage));
