import { lazyPart } from '@/ui';

export default lazyPart(() => import('@/areas/wire/WireFindings').then(({ WireFindings }) => WireFindings));
