export { ReachPage as default } from '@/areas/wire/ReachPage';
