export * from './api';
export * from './frames';
