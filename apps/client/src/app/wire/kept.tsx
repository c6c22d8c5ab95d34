export { KeptPage as default } from '@/areas/wire/KeptPage';
