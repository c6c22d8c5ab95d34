export { InOutPage as default } from '@/areas/rig/inout/InOutPage';
