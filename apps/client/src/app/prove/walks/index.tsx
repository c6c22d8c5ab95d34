export { WalksPage as default } from '@/areas/prove/walk/WalksPage';
