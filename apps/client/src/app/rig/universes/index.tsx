export { UniversesPage as default } from '@/areas/rig/universes/UniversesPage';
