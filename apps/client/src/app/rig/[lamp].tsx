export { LampPage as default } from '@/areas/rig/LampPage';
