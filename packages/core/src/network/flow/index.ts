/** Universes from those who send them to the ports that they leave by: planned, heard, and how each stands. */
export * from './standing';
export * from './paths';
export * from './senders';
export * from './sentBy';
export * from './sends';
export * from './ledger';
export * from './graph';
export * from './planRoutes';
export * from './controls';
export * from './universes';
export * from './outlets';
