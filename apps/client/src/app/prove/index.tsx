export { ProveArea as default } from '@/areas/prove/ProveArea';
