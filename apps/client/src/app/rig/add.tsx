export { AddLamps as default } from '@/areas/rig/AddLamps';
