/** The account of a stream, the rules of synchronisation, and how both are reported. */
export * from './account';
export * from './hold';
export * from './report';
export * from './startCodes';
export * from './syncs';
export * from './timeCode';
