import { lazyPart } from '@/ui';

export default lazyPart(() => import('@/areas/rig/universes/UniversesPage').then(({ UniversesPage }) => UniversesPage));
