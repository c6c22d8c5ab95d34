import { lazyPart } from '@/ui';

export default lazyPart(() => import('@/areas/flow/links/ComparePage').then(({ ComparePage }) => ComparePage));
