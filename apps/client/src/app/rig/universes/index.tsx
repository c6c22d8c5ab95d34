export { UniversesPage as default } from '@/areas/rig/UniversesPage';
