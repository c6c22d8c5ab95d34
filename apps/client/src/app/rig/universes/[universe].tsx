export { UniversePatch as default } from '@/areas/rig/universes/UniversePatch';
