export { nightFerry } from './nightFerry';
