/** Machines' ports and settings. */
export * from './ports';
export * from './keeping';
