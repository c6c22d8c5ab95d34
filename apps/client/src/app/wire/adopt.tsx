import { lazyPart } from '@/ui';

export default lazyPart(() => import('@/areas/wire/AdoptPage').then(({ AdoptPage }) => AdoptPage));
