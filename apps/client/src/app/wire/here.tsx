import { lazyPart } from '@/ui';

export default lazyPart(() => import('@/areas/wire/HerePage').then(({ HerePage }) => HerePage));
