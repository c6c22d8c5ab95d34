export { LinkPage as default } from '@/areas/flow/links/LinkPage';
