import { lazyPart } from '@/ui';

export default lazyPart(() => import('@/areas/rig/plan/PlanPage').then(({ PlanPage }) => PlanPage));
