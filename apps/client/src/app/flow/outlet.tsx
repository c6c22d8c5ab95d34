export { OutletPage as default } from '@/areas/flow/OutletPage';
