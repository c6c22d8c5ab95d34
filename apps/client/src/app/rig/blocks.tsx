export { BlocksPage as default } from '@/areas/rig/BlocksPage';
