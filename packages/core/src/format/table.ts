/** Tables as other programs read them (RFC 4180). */
import Papa from 'papaparse';

/** A cell that a table program would take for a formula is made plain text by an apostrophe. */
const plain = (cell: string | number): string | number =>
  typeof cell === 'string' && /^[=+\-@\t\r]/.test(cell) ? `'${cell}` : cell;

export const writeTable = (heads: readonly string[], rows: readonly (readonly (string | number)[])[]): string =>
  Papa.unparse([heads, ...rows.map((row) => row.map(plain))] as (string | number)[][], { newline: '\r\n' }) + '\r\n';
