export { SenderPage as default } from '@/areas/flow/senders/SenderPage';
