/** Matching by eye: what lights, who was tapped, and what comes of it. */
export * from './session';
export * from './result';
export * from './stretches';
export * from './look';
