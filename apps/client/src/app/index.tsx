export { StandPage as default } from '@/areas/stand/StandPage';
