import { lazyPart } from '@/ui';

export default lazyPart(() => import('@/areas/rig/ChangeLamps').then(({ ChangeLamps }) => ChangeLamps));
