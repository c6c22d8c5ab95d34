export { EyePage as default } from '@/areas/prove/eye/EyePage';
