export { UniversePage as default } from '@/areas/listen/UniversePage';
