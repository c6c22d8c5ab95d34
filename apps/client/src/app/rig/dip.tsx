export { DipPage as default } from '@/areas/rig/DipPage';
