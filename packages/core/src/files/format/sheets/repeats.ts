/**
 * Repeated cells and rows of an ODS (ODF 1.3, part 3, 19.675 and 19.677): a file of a kilobyte can say a billion cells.
 * They are bounded before anything is expanded.
 */
import { ok, refuse, type Result } from '../../../base/result';

/** Cells that hold something, all repeats counted */
const MOST_CELLS = 2_000_000;

const ROW = /<table:table-row\b[^>]*?(?:\/>|>[\s\S]*?<\/table:table-row>)/g;
const CELL = /<table:(?:covered-)?table-cell\b([^>]*?)(?:\/>|>([\s\S]*?)<\/table:(?:covered-)?table-cell>)/g;
const REPEATED = /\b(table:number-(?:rows|columns)-repeated)="(\d+)"/g;

const repeats = (text: string, what: 'rows' | 'columns'): number =>
  Number(new RegExp(`table:number-${what}-repeated="(\\d+)"`).exec(text)?.[1] ?? 1);

/** The content with no more repeats than rows and columns are read; refused where what it holds would be too much. */
export function withoutRepeats(content: Uint8Array, mostRows: number, mostColumns: number): Result<Uint8Array> {
  const text = new TextDecoder().decode(content);
  let cells = 0;
  for (const [row] of text.matchAll(ROW)) {
    let filled = 0;
    for (const [, attributes = '', inside = ''] of row.matchAll(CELL))
      if (inside !== '' || /office:value/.test(attributes))
        filled += Math.min(repeats(attributes, 'columns'), mostColumns);
    const opening = row.slice(0, row.indexOf('>') + 1);
    cells += filled * Math.min(repeats(opening, 'rows'), mostRows);
    if (cells > MOST_CELLS)
      return refuse(
        'out-of-range',
        `The table holds more than ${MOST_CELLS / 1_000_000} million cells, the most that is read.`,
      );
  }
  const bounded = text.replace(REPEATED, (_, name: string, count: string) => {
    const most = name.endsWith('rows-repeated') ? mostRows + 1 : mostColumns;
    return `${name}="${Math.min(Number(count), most)}"`;
  });
  return ok(bounded === text ? content : new TextEncoder().encode(bounded));
}
