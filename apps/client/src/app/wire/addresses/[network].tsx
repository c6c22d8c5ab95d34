import { lazyPart } from '@/ui';

export default lazyPart(() => import('@/areas/wire/addresses/NetworkPage').then(({ NetworkPage }) => NetworkPage));
