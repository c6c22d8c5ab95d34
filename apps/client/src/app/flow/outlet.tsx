import { lazyPart } from '@/ui';

export default lazyPart(() => import('@/areas/flow/OutletPage').then(({ OutletPage }) => OutletPage));
