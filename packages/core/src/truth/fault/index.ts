/** The library of faults: what can be planted on the demo's bench, and what is right to say of it. */
export * from './faults';
export * from './random';
export * from './lampFaults';
