export { AddUniverses as default } from '@/areas/rig/universes/AddUniverses';
