/** Tables as other programs read them (RFC 4180). */
import Papa from 'papaparse';
import { ok, refuse, type Result } from '../../base/result';

/** A cell that a table program would take for a formula is made plain text by an apostrophe. */
const plain = (cell: string | number): string | number =>
  typeof cell === 'string' && /^'*[=+\-@\t\r]/.test(cell) ? `'${cell}` : cell;

/** What such a cell was before it was made plain. */
export const unescapedCell = (cell: string): string => cell.replace(/^'(?='*[=+\-@\t\r])/, '');

/** Heads and rows of a table that goes out */
export interface TableContent {
  readonly heads: readonly string[];
  readonly rows: readonly (readonly (string | number)[])[];
}

export const tableOf = (heads: TableContent['heads'], rows: TableContent['rows']): TableContent => ({ heads, rows });

/** As comma-separated values (RFC 4180). */
export const writeTable = ({ heads, rows }: TableContent): string =>
  Papa.unparse([heads, ...rows.map((row) => row.map(plain))] as (string | number)[][], { newline: '\r\n' }) + '\r\n';

/** A line that was left out, counted from 1 with the headings. */
export interface BadLine {
  readonly line: number;
  readonly why: string;
}

export interface TableRow<Head extends string> {
  readonly line: number;
  /** The text of a cell; empty where there is none */
  readonly cell: (head: Head) => string;
}

const MOST_CHARACTERS = 20_000_000;

/** Rows under their headings, whose order and capitals do not matter; `needed` columns must be there. */
export function readTable<Head extends string>(text: string, needed: readonly Head[]): Result<TableRow<Head>[]> {
  if (text.length > MOST_CHARACTERS)
    return refuse('out-of-range', 'The table is larger than 20 MB, the most that is read.');
  const { data } = Papa.parse<string[]>(text.replace(/^\uFEFF/, '').trim(), { skipEmptyLines: true });
  const [heads, ...rows] = data;
  const columns = new Map(heads?.map((head, i) => [head.trim().toLowerCase(), i]));
  for (const head of needed)
    if (!columns.has(head.toLowerCase())) return refuse('not-understood', `The table has no column “${head}”.`);
  return ok(
    rows.map((row, i) => ({
      line: i + 2,
      cell: (head) => unescapedCell((row[columns.get(head.toLowerCase()) ?? -1] ?? '').trim()),
    })),
  );
}
