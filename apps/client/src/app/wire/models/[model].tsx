export { ModelPage as default } from '@/areas/wire/models/ModelPage';
