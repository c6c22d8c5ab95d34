export { nightFerry } from './nightFerry';
export * from './badNight';
export { hungShip } from './hung';
