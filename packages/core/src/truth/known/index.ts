/** How things are known: marks, heights, and what people saw. */
export * from './known';
export * from './sightings';
export * from './marks';
export * from './reports';
export * from './kept';
export * from './happened';
export * from './age';
