import { lazyPart } from '@/ui';

export default lazyPart(() => import('@/areas/rig/exchange/ExchangePage').then(({ ExchangePage }) => ExchangePage));
