import { lazyPart } from '@/ui';

export default lazyPart(() => import('@/areas/wire/machine/PortsPage').then(({ PortsPage }) => PortsPage));
