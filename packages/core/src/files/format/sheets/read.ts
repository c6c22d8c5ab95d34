/** Tables in: cells as the text that stands in them. No macro is run, and no formula worked out. */
import { read, SSF, utils, type CellObject, type ParsingOptions, type WorkBook, type WorkSheet } from '@e965/xlsx';
import Papa from 'papaparse';
import { ok, refuse, type Result } from '../../../base/result';
import { makeZip, openZip, type Entries } from '../archive';
import { unescapedCell } from '../table';
import { findHeads, guessColumns, type Sheet, type SheetDate, type SheetRow } from '../lampTable';
import { withoutRepeats } from './repeats';
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

/** What Excel makes of typed dates wherever it is used: the order of day and month is that of its country. */
const OF_ANY_COUNTRY = 'm/d/yy';

/** In which order the format of a date says that it was typed. */
function orderOf(format: string): SheetDate['order'] {
  const plain = format.toLowerCase().replace(/\[[^\]]*\]|"[^"]*"|\\./g, '');
  if (plain === OF_ANY_COUNTRY) return '';
  const [first = '', second = ''] = plain.match(/d+|m+|y+/g) ?? [];
  if (first.startsWith('d') && /^mm?$/.test(second)) return 'day first';
  if (/^mm?$/.test(first) && second.startsWith('d')) return 'month first';
  return first.startsWith('m') && second.startsWith('y') ? 'month, year' : '';
}

function dateOf({ t, v, z }: CellObject): SheetDate | undefined {
  const format = String(z ?? '');
  if (t === 'd' && v instanceof Date)
    return { year: v.getUTCFullYear(), month: v.getUTCMonth() + 1, day: v.getUTCDate(), order: orderOf(format) };
  if (t !== 'n' || !SSF.is_date(format)) return undefined;
  const parts = SSF.parse_date_code(Number(v)) as { y: number; m: number; d: number } | null;
  return parts ? { year: parts.y, month: parts.m, day: parts.d, order: orderOf(format) } : undefined;
}

/** A number whose zeros at the end are not shown, so that 1.10 reads as 1.1. */
const isShortened = ({ t, v, w }: CellObject): boolean =>
  t === 'n' && !Number.isInteger(v) && (w === undefined || w === String(v));

/** Cells that reach over several rows mean each of them. */
function fillDown(data: (CellObject | undefined)[][], merges: NonNullable<WorkSheet['!merges']>): void {
  for (const { s: from, e: to } of merges) {
    const cell = data[from.r]?.[from.c];
    if (cell) for (let row = from.r + 1; row <= Math.min(to.r, MOST_ROWS); row += 1) (data[row] ??= [])[from.c] = cell;
  }
}

function rowsOf(sheet: WorkSheet): SheetRow[] {
  const area = sheet['!ref'];
  const data = (sheet as { '!data'?: (CellObject | undefined)[][] })['!data'] ?? [];
  if (!area) return [];
  fillDown(data, sheet['!merges'] ?? []);
  const last = Math.min(utils.decode_range(area).e.c + 1, MOST_COLUMNS);
  return data.flatMap((cells, i) => {
    const row = Array.from({ length: last }, (_, at) => cellText(cells?.[at]).trim());
    if (row.every((cell) => cell === '')) return [];
    const dates = new Map<number, SheetDate>();
    const shortened = new Set<number>();
    cells?.slice(0, last).forEach((cell, at) => {
      const date = cell && dateOf(cell);
      if (date) {
        dates.set(at, date);
        row[at] = (cell.w ?? row[at]!).trim();
      } else if (cell && isShortened(cell)) shortened.add(at);
    });
    return [
      {
        line: i + 1,
        cells: row,
        ...(dates.size > 0 && { dates }),
        ...(shortened.size > 0 && { shortened }),
        ...(sheet['!rows']?.[i]?.hidden && { hidden: true }),
      },
    ];
  });
}

function sheetsOf(book: WorkBook): Sheet[] {
  const sheets = book.SheetNames.map((name, i): Sheet => {
    const sheet = book.Sheets[name]!;
    const columns = (sheet['!cols'] ?? []).flatMap((column, at) => (column?.hidden ? [at] : []));
    return {
      name,
      rows: rowsOf(sheet),
      ...((book.Workbook?.Sheets?.[i]?.Hidden ?? 0) > 0 && { hidden: true }),
      ...(columns.length > 0 && { hiddenColumns: new Set(columns) }),
    };
  });
  // What is out of sight comes last, so that it is never taken for the table.
  return sheets
    .filter(({ rows }) => rows.length > 0)
    .sort((a, b) => Number(a.hidden ?? false) - Number(b.hidden ?? false));
}

const READING: ParsingOptions = {
  dense: true,
  cellHTML: false,
  cellFormula: false,
  cellNF: true,
  cellStyles: true,
  sheetRows: MOST_ROWS + 1,
};

/** Parts of an ODS that may be left out (ODF 1.3, part 2), and that the library asks for. */
const OPTIONAL = { 'styles.xml': '<office:document-styles/>', 'META-INF/manifest.xml': '<manifest:manifest/>' };

function withOptional(entries: Entries): Uint8Array {
  const missing = Object.entries(OPTIONAL).filter(([name]) => !(name in entries));
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
  let whole = bytes;
  if (names.includes('content.xml')) {
    const content = withoutRepeats(entries.value['content.xml']!, MOST_ROWS, MOST_COLUMNS);
    if (!content.ok) return content;
    whole = withOptional({ ...entries.value, 'content.xml': content.value });
  }
  return opened(() => read(whole, { ...READING, type: 'array' }));
}

/** Reads with the library; whatever it throws at is damaged. */
function opened(reading: () => WorkBook): Result<Sheet[]> {
  try {
    return ok(sheetsOf(reading()));
  } catch (error) {
    return refuse(
      'not-understood',
      /password|encrypt/i.test((error as Error).message)
        ? 'The table is protected by a password. Save it without one.'
        : 'The table is damaged or cut short.',
    );
  }
}

/** The older form of a spreadsheet (.xls), or one that is locked by a password. */
const isCompound = (bytes: Uint8Array): boolean => [0xd0, 0xcf, 0x11, 0xe0].every((byte, i) => bytes[i] === byte);

const isHtml = (text: string): boolean =>
  /^\s*(<!doctype html|<html|<table|<meta|<head)/i.test(text) && /<table/i.test(text);

function readText(bytes: Uint8Array): Result<Sheet[]> {
  const text = decodeText(bytes);
  if (text === undefined) return refuse('not-understood', 'This is no text, so it cannot be a table.');
  if (text.length > MOST_CHARACTERS)
    return refuse('out-of-range', 'The table is larger than 20 MB, the most that is read.');
  // Cells of a page are text as it stands there: nothing is made a number or a date.
  if (isHtml(text)) return opened(() => read(text, { ...READING, type: 'string', raw: true }));
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
  const sheets = packed
    ? readBook(bytes)
    : isCompound(bytes)
      ? opened(() => read(bytes, { ...READING, type: 'array' }))
      : readText(bytes);
  if (!sheets.ok) return sheets;
  if (sheets.value.length === 0) return refuse('not-understood', 'The table is empty.');
  const long = sheets.value.find(({ rows }) => rows.length > MOST_ROWS);
  if (long) return refuse('out-of-range', `The table has more than ${MOST_ROWS} rows.`);
  return sheets;
}
