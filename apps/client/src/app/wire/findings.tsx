export { WireFindings as default } from '@/areas/wire/WireFindings';
