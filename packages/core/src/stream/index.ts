export * from './account';
