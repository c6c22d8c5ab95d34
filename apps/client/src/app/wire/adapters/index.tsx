export { AdaptersPage as default } from '@/areas/wire/adapters/AdaptersPage';
