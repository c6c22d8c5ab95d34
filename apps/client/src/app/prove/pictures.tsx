import { lazyPart } from '@/ui';

export default lazyPart(() => import('@/areas/prove/pictures/PicturesPage').then(({ PicturesPage }) => PicturesPage));
