import { lazyPart } from '@/ui';

export default lazyPart(() => import('@/areas/rig/universes/AddUniverses').then(({ AddUniverses }) => AddUniverses));
