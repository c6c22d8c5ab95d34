import { lazyPart } from '@/ui';

export default lazyPart(() => import('@/areas/flow/FlowArea').then(({ FlowArea }) => FlowArea));
