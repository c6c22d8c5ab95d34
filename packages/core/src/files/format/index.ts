/** Open formats that are text: tables and the show file. What is packed is in archive/ and sheets/. */
export * from './citpPatch';
export * from './lampTable';
export * from './networkTables';
export * from './outputTable';
export { writeProofTable } from './proofTable';
export * from './rigTables';
export { writeRollTable } from './rollTable';
export * from './showFile';
export { writeTable, type BadLine, type TableContent } from './table';
