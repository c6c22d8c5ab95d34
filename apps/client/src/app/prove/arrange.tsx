import { lazyPart } from '@/ui';

export default lazyPart(() => import('@/areas/prove/roll/ArrangePage').then(({ ArrangePage }) => ArrangePage));
