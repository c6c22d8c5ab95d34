/** Universes sent on as others: how inputs become one output, who owns each slot of it, and ways that feed themselves. */
export * from './way';
export * from './mixer';
export * from './parts';
export * from './loops';
export * from './report';
