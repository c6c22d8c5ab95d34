export { ModelsPage as default } from '@/areas/wire/models/ModelsPage';
