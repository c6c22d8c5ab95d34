export { WalkPage as default } from '@/areas/prove/walk/WalkPage';
