export { FlowArea as default } from '@/areas/flow/FlowArea';
