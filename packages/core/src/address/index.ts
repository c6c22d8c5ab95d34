export * from './universe';
export * from './portAddress';
export * from './wire';
