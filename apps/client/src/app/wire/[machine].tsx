import { lazyPart } from '@/ui';

export default lazyPart(() => import('@/areas/wire/machine/MachinePage').then(({ MachinePage }) => MachinePage));
