import { lazyPart } from '@/ui';

export default lazyPart(() => import('@/areas/flow/senders/SenderPage').then(({ SenderPage }) => SenderPage));
