export * from './records';
export * from './machines';
export * from './upgrade';
export * from './edit';
export * from './schema';
export * from './integrity';
export * from './routing';
export * from './routeLoops';
