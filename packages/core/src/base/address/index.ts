export * from './universe';
export * from './portAddress';
export * from './wire';
export * from './dip';
export * from './universeList';
