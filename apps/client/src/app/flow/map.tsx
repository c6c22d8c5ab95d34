export { MapPage as default } from '@/areas/flow/routes/MapPage';
