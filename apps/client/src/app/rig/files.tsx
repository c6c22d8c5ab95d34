export { FilesPage as default } from '@/areas/rig/files/FilesPage';
