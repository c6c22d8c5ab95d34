export * from './patch';
export * from './findings';
export * from './occupancy';
export * from './plan';
export * from './acts';
export * from './repairs';
export * from './bulk';
export * from './typeActs';
