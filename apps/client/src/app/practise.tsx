import { lazyPart } from '@/ui';

export default lazyPart(() => import('@/areas/practise/PractisePage').then(({ PractisePage }) => PractisePage));
