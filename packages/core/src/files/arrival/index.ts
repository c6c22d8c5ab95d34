/** What arrives from outside, beside what is there: how it differs, and what taking it over would write. */
export * from './choices';
export * from './compare';
export * from './fitted';
export * from './guid';
export * from './incoming';
export * from './mapType';
export * from './modeChanges';
export * from './patchDifferences';
export * from './plan';
export * from './types';
export * from './unknownType';
