export * from './paths';
