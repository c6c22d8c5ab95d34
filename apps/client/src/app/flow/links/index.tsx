export { LinksPage as default } from '@/areas/flow/links/LinksPage';
