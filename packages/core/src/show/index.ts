export * from './records';
export * from './edit';
export * from './schema';
export * from './integrity';
