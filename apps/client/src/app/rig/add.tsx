import { lazyPart } from '@/ui';

export default lazyPart(() => import('@/areas/rig/AddLamps').then(({ AddLamps }) => AddLamps));
