export { TypePage as default } from '@/areas/rig/types/TypePage';
