export { StandInsPage as default } from '@/areas/wire/StandInsPage';
