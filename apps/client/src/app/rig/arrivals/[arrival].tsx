import { lazyPart } from '@/ui';

export default lazyPart(() => import('@/areas/rig/arrivals/ArrivalPage').then(({ ArrivalPage }) => ArrivalPage));
