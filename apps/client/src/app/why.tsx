import { lazyPart } from '@/ui';

export default lazyPart(() => import('@/areas/why/WhyPage').then(({ WhyPage }) => WhyPage));
