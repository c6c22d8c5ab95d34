export * from './account';
export * from './hold';
