/** Planned machines beside heard ones: matching, drift, pushing, adopting. */
export * from './nodeReport';
export * from './report';
export * from './match';
export * from './drift';
export * from './driftWords';
export * from './push';
export * from './adopt';
export * from './bringOn';
export * from './byHand';
export { heardFaults, type HeardFault } from './heardFaults';
