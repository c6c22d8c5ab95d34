export { SendersPage as default } from '@/areas/flow/senders/SendersPage';
