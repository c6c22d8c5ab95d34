import { lazyPart } from '@/ui';

export default lazyPart(() => import('@/areas/flow/routes/RoutePage').then(({ RoutePage }) => RoutePage));
