export * from './layout';
export * from './account';
