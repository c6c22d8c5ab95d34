import { lazyPart } from '@/ui';

export default lazyPart(() => import('@/areas/prove/ProveArea').then(({ ProveArea }) => ProveArea));
