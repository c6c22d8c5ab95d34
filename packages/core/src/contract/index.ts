export * from './api';
export * from './frames';
export * from './nodes';
export * from './routes';
