export { WireArea as default } from '@/areas/wire/WireArea';
