/** The record of proof: what was proved, by whom and how that is known, as lists, as paper and as a table. */
export { proofContent, proofJson } from './content';
export { proofBlocks, proofHtml, type Block } from './paper';
export * from './labels';
export { columnWidths, cut, tableSize, textWidth, wrap } from './measure';
export { differencesOfProofs } from './differences';
export type { ProofContent } from './said';
