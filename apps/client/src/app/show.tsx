export { ShowPage as default } from '@/areas/show/ShowPage';
