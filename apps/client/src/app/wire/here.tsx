export { HerePage as default } from '@/areas/wire/HerePage';
