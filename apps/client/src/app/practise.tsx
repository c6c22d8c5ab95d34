export { PractisePage as default } from '@/areas/practise/PractisePage';
