export { RollPage as default } from '@/areas/prove/roll/RollPage';
