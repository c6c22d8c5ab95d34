export { ExchangePage as default } from '@/areas/rig/exchange/ExchangePage';
