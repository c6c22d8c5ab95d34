import { lazyPart } from '@/ui';

export default lazyPart(() => import('@/areas/listen/UniversePage').then(({ UniversePage }) => UniversePage));
