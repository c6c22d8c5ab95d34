export { ArrivalPage as default } from '@/areas/rig/arrivals/ArrivalPage';
