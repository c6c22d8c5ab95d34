export { ComparePage as default } from '@/areas/flow/links/ComparePage';
