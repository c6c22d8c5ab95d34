export { UniverseRig as default } from '@/areas/rig/UniverseRig';
