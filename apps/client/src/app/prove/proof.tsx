export { ProofPage as default } from '@/areas/prove/proof/ProofPage';
