import { lazyPart } from '@/ui';

export default lazyPart(() => import('@/areas/wire/PortTable').then(({ PortTable }) => PortTable));
