import { lazyPart } from '@/ui';

export default lazyPart(() => import('@/areas/wire/models/ModelsPage').then(({ ModelsPage }) => ModelsPage));
