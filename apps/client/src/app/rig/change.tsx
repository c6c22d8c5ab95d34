export { ChangeLamps as default } from '@/areas/rig/ChangeLamps';
