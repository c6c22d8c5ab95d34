/** The lamps of a table, and the cells that cannot be read, each with its reason. */
import type { SlotAddress } from '../../address';
import { fitted, type Incoming, type IncomingLamp } from '../../arrival';
import { countOf } from '../../edit';
import { ok, refuse, type Result } from '../../result';
import type { FixtureType, Lamp, ShowRecords } from '../../records';
import { readAddresses, readApart, type AddressBases } from './address';
import { findHeads, guessColumns, type Column, type Heads } from './heads';
import type { Sheet, SheetRow } from './sheet';
import { TypesByName } from './typesByName';

export const UNITS = { m: 1, cm: 0.01, mm: 0.001, ft: 0.3048, in: 0.0254 } as const;
export type LengthUnit = keyof typeof UNITS;

export interface TableChoices extends AddressBases {
  readonly columns: readonly (Column | null)[];
  readonly unit: LengthUnit;
}

/** A table within a sheet: its heads, and the rows below them. */
export interface Table {
  readonly heads: readonly string[];
  /** Line of the last of its heads, from 1; 0 where it has none */
  readonly headLine: number;
  readonly rows: readonly SheetRow[];
  /** Lines above the heads */
  readonly above: number;
}

export interface BadRow {
  /** As the file counts lines, from 1 */
  readonly line: number;
  readonly why: string;
}

const isNumber = (cell: string): boolean => /^\d+([./]\d+)?$/.test(cell);

/** Makes a table of a sheet; `heads` says where its heads are if that is not to be found out. */
export function tableIn(sheet: Sheet, heads: Heads | undefined = findHeads(sheet)): Result<Table> {
  const first = sheet.rows[0]?.cells ?? [];
  // A first row that is a row already is no heads: what its columns mean is asked.
  const without = { from: 0, to: 0, heads: first.map((_, i) => `Column ${i + 1}`) };
  const found = heads ?? (first.some(isNumber) ? without : { from: 0, to: 1, heads: first });
  if (found.heads.filter((head) => head !== '').length < 2)
    return refuse('not-understood', 'The table needs a row of heads, and two columns or more.');
  const rows = sheet.rows.slice(found.to);
  if (rows.length === 0) return refuse('not-understood', 'The table has heads but no rows.');
  return ok({
    heads: found.heads,
    headLine: sheet.rows[found.to - 1]?.line ?? 0,
    rows,
    above: found.from,
  });
}

/** The unit that stands in the head of a length; metres if none does. */
function usualUnit(heads: readonly string[], columns: readonly (Column | null)[]): LengthUnit {
  const lengths = heads.filter((_, i) => ['x', 'y', 'z'].includes(columns[i] ?? ''));
  const said = lengths.map((head) => /\b(mm|cm|ft|in|m)\b[)\]]?$/i.exec(head.trim())?.[1]?.toLowerCase());
  return (said.find((unit) => unit !== undefined) as LengthUnit | undefined) ?? 'm';
}

/** How a table is read before anybody says otherwise. */
export function usualChoices({ heads, rows }: Table): TableChoices {
  const columns = guessColumns(
    heads,
    rows.slice(0, 40).map(({ cells }) => cells),
  );
  return { columns, unit: usualUnit(heads, columns), channelBase: 1, universeBase: 1 };
}

type Cells = Readonly<Partial<Record<Column, string>>>;

const HIGHEST_NUMBER = 999_999;
/** Groups that a lamp can be in */
const MOST_GROUPS = 200;

interface Row {
  readonly line: number;
  readonly cells: Cells;
}

const listed = (text: string): string[] =>
  text
    .split(/[;,]/)
    .map((one) => fitted(one))
    .filter((one) => one !== '')
    .slice(0, MOST_GROUPS);

function addressesOf(cells: Cells, choices: TableChoices, records: ShowRecords): Result<SlotAddress[] | undefined> {
  const { universe, channel, address } = cells;
  if (universe !== undefined) {
    const apart = readApart(universe, channel || address || '', choices, records);
    return apart.ok ? ok([apart.value]) : apart;
  }
  const text = address ?? channel;
  return text === undefined ? ok(undefined) : readAddresses(text, choices, records);
}

type Metres = Partial<Record<'x' | 'y' | 'z', number>>;

function metresOf(cells: Cells, unit: LengthUnit, faults: string[]): Metres {
  const metres: Metres = {};
  for (const axis of ['x', 'y', 'z'] as const) {
    const text = cells[axis]?.trim() ?? '';
    if (text === '') continue;
    const said = /^([-−+]?[\d.,]+)\s*(mm|cm|m|ft|in)?$/i.exec(text);
    const own = said?.[2]?.toLowerCase() as LengthUnit | undefined;
    const length = Number(said?.[1]?.replace(',', '.').replace('−', '-')) * UNITS[own ?? unit];
    if (Number.isFinite(length) && Math.abs(length) <= 10_000) metres[axis] = Math.round(length * 1000) / 1000;
    else faults.push(`“${text}” is no length for ${axis}.`);
  }
  return metres;
}

/** A lamp of a row; a cell that cannot be read is as if it were not there, and is told. */
function readRow(
  { cells }: Row,
  number: number,
  written: string,
  choices: TableChoices,
  types: TypesByName,
  records: ShowRecords,
  there: Lamp | undefined,
  faults: string[],
): IncomingLamp {
  const addresses = addressesOf(cells, choices, records);
  if (!addresses.ok) faults.push(addresses.why);
  const metres = metresOf(cells, choices.unit, faults);
  const { type, mode } = types.of(cells, there);
  const said = (['unit', 'position', 'class', 'function'] as const).filter((field) => cells[field] !== undefined);
  return {
    number,
    written,
    name:
      fitted(cells.name ?? '') || (there?.name ?? fitted(type.unknown ? `Lamp ${number}` : `${type.name} ${number}`)),
    typeId: type.id,
    mode,
    addresses: addresses.ok ? addresses.value : undefined,
    ...(cells.place !== undefined && { place: fitted(cells.place) }),
    ...(cells.group !== undefined && { groups: listed(cells.group) }),
    ...Object.fromEntries(said.map((field) => [field, fitted(cells[field]!, field === 'unit' ? 40 : 120)])),
    ...metres,
  };
}

const whole = (text: string | undefined): number | undefined => {
  // `(101)` is how desks’ channels are written on plots.
  const number = Number(/^[(#]?\s*(\d+)(?:\.0+)?\s*\)?$/.exec(text?.trim() ?? '')?.[1] ?? 0);
  return number >= 1 && number <= HIGHEST_NUMBER ? number : undefined;
};

/** Rows that say nothing of a lamp: titles between them, sums, and heads that are repeated on each page. */
function isLamp({ cells }: Row, row: SheetRow, heads: readonly string[]): boolean {
  const filled = row.cells.filter((cell) => cell !== '').length;
  if (row.cells.filter((cell, i) => cell !== '' && cell === heads[i]).length * 2 > filled) return false;
  const first = row.cells.find((cell) => cell !== '') ?? '';
  if (whole(cells.number) === undefined && /^(sum|total|page|summe|seite)\b/i.test(first)) return false;
  const says = [cells.number, cells.type, cells.address, cells.channel].filter((cell) => cell).length;
  return says >= 2 || (says === 1 && filled > 1);
}

const some = (names: readonly (string | number)[]): string =>
  `${names.slice(0, 3).join(', ')}${names.length > 3 ? ` and ${names.length - 3} more` : ''}`;

/** The lamps of a table; a cell that cannot be read spoils only itself, and is told. Lines are the file’s own. */
export function readLampTable(
  table: Table,
  choices: TableChoices,
  types: readonly FixtureType[],
  records: ShowRecords,
): { incoming: Incoming; bad: BadRow[] } {
  const known = new TypesByName(types);
  const lamps: IncomingLamp[] = [];
  const bad: BadRow[] = [];
  const between: number[] = [];
  const rows = table.rows.map((row): Row => {
    const cells: Partial<Record<Column, string>> = {};
    choices.columns.forEach((column, at) => {
      if (column) cells[column] = row.cells[at] ?? '';
    });
    return { line: row.line, cells };
  });
  const byNumber = new Map(records.lamp.map((lamp) => [lamp.number, lamp]));
  const taken = new Set(rows.flatMap(({ cells }) => whole(cells.number) ?? []));
  const given: string[] = [];
  const linesOf = new Map<number, number[]>();
  rows.forEach((row, i) => {
    if (!isLamp(row, table.rows[i]!, table.heads)) {
      between.push(row.line);
      return;
    }
    const said = row.cells.number?.trim() ?? '';
    let number = whole(said);
    if (number === undefined) {
      number = whole(/\d+/.exec(said)?.[0]) ?? 1;
      while (taken.has(number)) number += 1;
      taken.add(number);
      given.push(`${said || `line ${row.line}`} gets ${number}`);
    }
    const written = said === '' || whole(said) !== undefined ? '' : fitted(said, 40);
    const faults: string[] = [];
    const lamp = readRow(row, number, written, choices, known, records, byNumber.get(number), faults);
    bad.push(...faults.map((why) => ({ line: row.line, why })));
    linesOf.set(number, [...(linesOf.get(number) ?? []), row.line]);
    lamps.push(choices.columns.includes('number') ? lamp : { ...lamp, written: undefined });
  });
  const doubled = [...linesOf].filter(([, lines]) => lines.length > 1);
  const leftOut = table.heads.filter((head, i) => head !== '' && !choices.columns[i]);
  const notes = [
    ...(given.length > 0 ? [`${countOf(given.length, 'row')} without a number: ${some(given)}.`] : []),
    ...doubled.map(([number, lines]) => `Number ${number} stands in lines ${lines.join(', ')}.`),
    ...(between.length > 0
      ? [
          `${countOf(between.length, 'row')} without a lamp (titles, sums, heads): ${between.length === 1 ? 'line' : 'lines'} ${some(between)}.`,
        ]
      : []),
    ...(table.above > 0 ? [`${countOf(table.above, 'row')} above the heads.`] : []),
    ...(leftOut.length > 0
      ? [`Left out: the ${leftOut.length === 1 ? 'column' : 'columns'} ${leftOut.join(', ')}.`]
      : []),
  ];
  return { incoming: { types: [...known.used.values()], lamps, notes, file: null }, bad };
}
