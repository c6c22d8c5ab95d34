export { nightFerry } from './nightFerry';
export * from './badNight';
