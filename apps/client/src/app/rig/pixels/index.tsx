export { PixelsPage as default } from '@/areas/rig/pixels/PixelsPage';
