export { PicturesPage as default } from '@/areas/prove/pictures/PicturesPage';
