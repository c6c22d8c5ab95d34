export { TypesPage as default } from '@/areas/rig/types/TypesPage';
