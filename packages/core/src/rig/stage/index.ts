export * from './arrange';
export * from './light';
