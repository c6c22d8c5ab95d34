/** The world that the plan describes, deviations from it, and what would be heard, said and seen. */
export * from './world';
export * from './planned';
export * from './deliver';
export * from './observe';
