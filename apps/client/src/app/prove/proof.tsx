import { lazyPart } from '@/ui';

export default lazyPart(() => import('@/areas/prove/proof/ProofPage').then(({ ProofPage }) => ProofPage));
