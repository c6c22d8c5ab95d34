import { lazyPart } from '@/ui';

export default lazyPart(() => import('@/areas/wire/KeptPage').then(({ KeptPage }) => KeptPage));
