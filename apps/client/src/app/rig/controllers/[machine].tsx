export { ControllerPage as default } from '@/areas/rig/pixels/ControllerPage';
