export { PlanPage as default } from '@/areas/rig/plan/PlanPage';
