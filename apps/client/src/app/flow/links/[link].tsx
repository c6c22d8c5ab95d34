import { lazyPart } from '@/ui';

export default lazyPart(() => import('@/areas/flow/links/LinkPage').then(({ LinkPage }) => LinkPage));
