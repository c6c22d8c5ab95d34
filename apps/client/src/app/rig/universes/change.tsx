export { ChangeUniverses as default } from '@/areas/rig/universes/ChangeUniverses';
