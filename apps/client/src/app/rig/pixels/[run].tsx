export { RunPage as default } from '@/areas/rig/pixels/RunPage';
