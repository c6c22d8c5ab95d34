import { lazyPart } from '@/ui';

export default lazyPart(() => import('@/areas/wire/models/ModelPage').then(({ ModelPage }) => ModelPage));
