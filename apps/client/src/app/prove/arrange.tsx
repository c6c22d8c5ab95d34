export { ArrangePage as default } from '@/areas/prove/roll/ArrangePage';
