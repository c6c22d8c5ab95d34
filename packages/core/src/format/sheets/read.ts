/** Tables in: cells as the text that stands in them. No macro is run, and no formula worked out. */
import { read, utils, type CellObject, type WorkSheet } from '@e965/xlsx';
import Papa from 'papaparse';
import { ok, refuse, type Result } from '../../result';
import { makeZip, openZip, type Entries } from '../archive';
import { unescapedCell } from '../table';
import { findHeads, guessColumns, type Sheet, type SheetRow } from '../lampTable';
import { decodeText } from './text';

const MOST_ROWS = 50_000;
const MOST_COLUMNS = 400;
const MOST_CHARACTERS = 20_000_000;
const DELIMITERS = [',', ';', '\t', '|'];

/** A number as it stands in its cell: 3.10 is an address, and 3.1 another one. */
function numberText({ v, w }: CellObject): string {
  const plain = String(v);
  return w !== undefined && /^-?\d+\.\d*0$/.test(w) && Number(w) === v ? w : plain;
}

function cellText(cell: CellObject | undefined): string {
  if (!cell || cell.v === undefined || cell.v === null) return '';
  // What is wrong in its cell is told where it is read: “#REF!” is no address.
  if (cell.t === 'e') return cell.w ?? '';
  if (cell.t === 'n') return numberText(cell);
  if (cell.t === 'd') return cell.w ?? String(cell.v);
  return String(cell.v).replaceAll('\0', '');
}

function rowsOf(sheet: WorkSheet): SheetRow[] {
  const area = sheet['!ref'];
  const data = (sheet as { '!data'?: (CellObject | undefined)[][] })['!data'] ?? [];
  if (!area) return [];
  const last = Math.min(utils.decode_range(area).e.c + 1, MOST_COLUMNS);
  return data.flatMap((cells, i) => {
    const row = Array.from({ length: last }, (_, at) => cellText(cells?.[at]).trim());
    return row.some((cell) => cell !== '') ? [{ line: i + 1, cells: row }] : [];
  });
}

/** Parts of an ODS that may be left out (ODF 1.3, part 2), and that the library asks for. */
const OPTIONAL = { 'styles.xml': '<office:document-styles/>', 'META-INF/manifest.xml': '<manifest:manifest/>' };

function withOptional(bytes: Uint8Array, entries: Entries): Uint8Array {
  const missing = Object.entries(OPTIONAL).filter(([name]) => !(name in entries));
  if (missing.length === 0) return bytes;
  const made = missing.map(([name, text]) => [name, new TextEncoder().encode(text)] as const);
  return makeZip({ ...entries, ...Object.fromEntries(made) });
}

function readBook(bytes: Uint8Array): Result<Sheet[]> {
  // Whatever would hurt when it is unpacked is refused before the library sees it.
  const entries = openZip(bytes);
  if (!entries.ok) return entries;
  const names = Object.keys(entries.value);
  if (!names.some((name) => name === 'content.xml' || /^xl\/workbook\.(xml|bin)$/.test(name)))
    return refuse('not-understood', 'The file is an archive, but no table (XLSX or ODS).');
  const whole = names.includes('content.xml') ? withOptional(bytes, entries.value) : bytes;
  try {
    const book = read(whole, {
      type: 'array',
      dense: true,
      cellHTML: false,
      cellFormula: false,
      sheetRows: MOST_ROWS + 1,
    });
    const sheets = book.SheetNames.map((name) => ({ name, rows: rowsOf(book.Sheets[name]!) }));
    return ok(sheets.filter(({ rows }) => rows.length > 0));
  } catch {
    return refuse('not-understood', 'The table is damaged or cut short, or protected by a password.');
  }
}

function readText(bytes: Uint8Array): Result<Sheet[]> {
  const text = decodeText(bytes);
  if (text === undefined) return refuse('not-understood', 'This is no text, so it cannot be a table.');
  if (text.length > MOST_CHARACTERS)
    return refuse('out-of-range', 'The table is larger than 20 MB, the most that is read.');
  const tried = DELIMITERS.map((delimiter) => {
    const rows = parted(text, delimiter);
    return {
      rows,
      understood: understood(rows),
      wide: rows.slice(0, 50).reduce((sum, { cells }) => sum + cells.length, 0),
    };
  });
  // Titles above a table hold commas too: what parts its cells is what makes its heads understood.
  const { rows } = tried.sort((a, b) => b.understood - a.understood || b.wide - a.wide)[0]!;
  return ok(rows.length === 0 ? [] : [{ name: '', rows }]);
}

function parted(text: string, delimiter: string): SheetRow[] {
  let line = 1;
  const rows: SheetRow[] = [];
  for (const cells of Papa.parse<string[]>(text, { delimiter }).data) {
    const trimmed = cells.slice(0, MOST_COLUMNS).map((cell) => unescapedCell(cell.trim()));
    if (trimmed.some((cell) => cell !== '')) rows.push({ line, cells: trimmed });
    // A cell may hold several lines; the file counts them all.
    line += 1 + cells.reduce((sum, cell) => sum + (cell.match(/\r\n|\n|\r/g)?.length ?? 0), 0);
  }
  return rows;
}

/** Columns whose heads are understood, if the rows are a table. */
function understood(rows: readonly SheetRow[]): number {
  const heads = findHeads({ rows });
  return heads ? guessColumns(heads.heads).filter((column) => column !== null).length : 0;
}

/** The sheets of a table that hold anything. */
export function readSheets(bytes: Uint8Array): Result<Sheet[]> {
  const packed = bytes[0] === 0x50 && bytes[1] === 0x4b;
  const sheets = packed ? readBook(bytes) : readText(bytes);
  if (!sheets.ok) return sheets;
  if (sheets.value.length === 0) return refuse('not-understood', 'The table is empty.');
  const long = sheets.value.find(({ rows }) => rows.length > MOST_ROWS);
  if (long) return refuse('out-of-range', `The table has more than ${MOST_ROWS} rows.`);
  return sheets;
}
