export { RoutesPage as default } from '@/areas/flow/routes/RoutesPage';
