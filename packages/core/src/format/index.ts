/** Open formats that are text: tables and the show file; and comparing what came in with the show. */
export * from './csv';
export * from './networkTables';
export * from './outputTable';
export type { BadLine } from './table';
export * from './patchDifferences';
export * from './rigImport';
export * from './showFile';
