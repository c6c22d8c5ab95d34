export { SeenLampPage as default } from '@/areas/prove/roll/SeenLampPage';
