/** Machines' ports and settings. */
export * from './adapter';
export * from './ports';
export * from './carries';
export * from './keeping';
