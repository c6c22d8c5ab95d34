/** What ships: fixture types and models of machines. */
export * from './boxes';
export * from './library';
