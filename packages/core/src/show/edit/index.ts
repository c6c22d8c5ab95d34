/** Changing a show: edits, plans of edits, what must hold, and records of older versions. */
export * from './edit';
export * from './plan';
export * from './recordName';
export * from './difference';
export * from './history';
export * from './check';
export * from './integrity';
export * from './migrations';
