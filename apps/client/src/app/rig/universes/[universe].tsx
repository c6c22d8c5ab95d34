import { lazyPart } from '@/ui';

export default lazyPart(() => import('@/areas/rig/universes/UniversePatch').then(({ UniversePatch }) => UniversePatch));
