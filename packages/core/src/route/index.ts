/** Universes sent on as others: how inputs become one output, who owns each slot of it, and what moves its masters. */
export * from './mixer';
export * from './controls';
export * from './parts';
export * from './planning';
