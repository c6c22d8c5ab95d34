export { RoutePage as default } from '@/areas/flow/routes/RoutePage';
