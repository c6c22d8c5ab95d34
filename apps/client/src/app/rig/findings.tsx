export { FindingsPage as default } from '@/areas/rig/FindingsPage';
