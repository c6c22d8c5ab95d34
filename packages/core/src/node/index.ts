/** Planned machines beside heard ones: matching, drift, pushing, adopting. */
export * from './report';
export * from './match';
export * from './drift';
export * from './push';
export * from './takeOver';
export * from './bringOn';
export * from './byHand';
