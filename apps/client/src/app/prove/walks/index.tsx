import { lazyPart } from '@/ui';

export default lazyPart(() => import('@/areas/prove/walk/WalksPage').then(({ WalksPage }) => WalksPage));
