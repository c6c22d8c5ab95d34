export * from './csv';
export * from './gdtf';
export * from './guid';
export * from './mvr';
export * from './networkTables';
export * from './rigImport';
export * from './showFile';
export { openZip, makeZip, MOST_FILE_BYTES } from './zip';
