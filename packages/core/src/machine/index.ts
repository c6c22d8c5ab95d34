/** Machines' ports and settings. */
export * from './ports';
export * from './carries';
export * from './keeping';
