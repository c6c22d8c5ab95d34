export * from './slots';
export * from './merger';
export * from './backup';
