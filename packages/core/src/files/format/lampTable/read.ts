/** The lamps of a table, and the cells that cannot be read, each with its reason. */
import type { SlotAddress } from '../../../base/address';
import { fitted, type Incoming, type IncomingLamp } from '../../arrival';
import { countOf } from '../../../show/edit';
import { ok, refuse, type Refused, type Result } from '../../../base/result';
import type { FixtureType, Lamp, ShowRecords } from '../../../show/records';
import { readAddresses, readApart, type AddressBases } from './address';
import { findHeads, guessColumns, type Column, type Heads } from './heads';
import { readLength, type LengthUnit } from './lengths';
import { addressOfDate, isOpen, openDecimals, provenComma, type Answers, type Comma, type Question } from './questions';
import type { Sheet, SheetDate, SheetRow } from './sheet';
import { TypesByName } from './typesByName';

export interface TableChoices extends AddressBases, Answers {
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
  /** Columns that are out of sight in the spreadsheet, from 0 */
  readonly hiddenColumns?: ReadonlySet<number> | undefined;
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
    hiddenColumns: sheet.hiddenColumns,
  });
}

/** The unit that stands in the head of a length; metres if none does. */
function usualUnit(heads: readonly string[], columns: readonly (Column | null)[]): LengthUnit {
  const lengths = heads.filter((_, i) => ['x', 'y', 'z'].includes(columns[i] ?? ''));
  const said = lengths.map((head) => /\b(mm|cm|ft|in|m)\b[)\]]?$/i.exec(head.trim())?.[1]?.toLowerCase());
  return (said.find((unit) => unit !== undefined) as LengthUnit | undefined) ?? 'm';
}

/** How a table is read before anybody says otherwise. */
export function usualChoices({ heads, rows, hiddenColumns }: Table): TableChoices {
  const columns = guessColumns(
    heads,
    rows.slice(0, 40).map(({ cells }) => cells),
    hiddenColumns,
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
  readonly dates: Readonly<Partial<Record<Column, SheetDate>>>;
  /** Columns whose number may have lost zeros at its end */
  readonly shortened: ReadonlySet<Column>;
}

const listed = (text: string): string[] =>
  text
    .split(/[;,]/)
    .map((one) => fitted(one))
    .filter((one) => one !== '')
    .slice(0, MOST_GROUPS);

function addressesOf(
  { cells, dates, shortened }: Row,
  choices: TableChoices,
  records: ShowRecords,
): Result<SlotAddress[] | undefined> {
  const { universe, channel, address } = cells;
  const column = universe === undefined && address === undefined ? 'channel' : 'address';
  const date = dates[column];
  if (date && universe === undefined) {
    const typed = addressOfDate(cells[column]!, date, choices);
    return typeof typed === 'string' ? readAddresses(typed, choices, records) : typed;
  }
  if (universe !== undefined && (dates.universe || dates.channel))
    return refuse('not-understood', 'The spreadsheet made a date of the universe or the channel. Type it as text.');
  const open = universe === undefined && shortened.has(column) ? openDecimals(cells[column]!, choices) : undefined;
  if (open) return open;
  if (universe !== undefined) {
    const apart = readApart(universe, channel || address || '', choices, records);
    return apart.ok ? ok([apart.value]) : apart;
  }
  const text = address ?? channel;
  return text === undefined ? ok(undefined) : readAddresses(text, choices, records);
}

/** What is wrong in a table, and what it leaves open. */
class Faults {
  readonly bad: BadRow[] = [];
  readonly questions = new Set<Question>();

  of(line: number, refused: Refused): void {
    if (isOpen(refused)) this.questions.add(refused.question);
    this.bad.push({ line, why: refused.why });
  }
}

type Metres = Partial<Record<'x' | 'y' | 'z', number>>;

function metresOf({ line, cells }: Row, unit: LengthUnit, comma: Comma | undefined, faults: Faults): Metres {
  const metres: Metres = {};
  for (const axis of ['x', 'y', 'z'] as const) {
    const text = cells[axis]?.trim() ?? '';
    if (text === '') continue;
    const length = readLength(text, unit, comma);
    if (length.ok) metres[axis] = length.value;
    else faults.of(line, { ...length, why: `${axis}: ${length.why}` });
  }
  return metres;
}

const LONGEST = { unit: 40, position: 120, class: 120, function: 120, gel: 120, circuit: 40, notes: 400 } as const;

/** A lamp of a row; a cell that cannot be read is as if it were not there, and is told. */
function readRow(
  row: Row,
  number: number,
  written: string,
  choices: TableChoices,
  types: TypesByName,
  records: ShowRecords,
  there: Lamp | undefined,
  faults: Faults,
): IncomingLamp {
  const { cells } = row;
  const addresses = addressesOf(row, choices, records);
  if (!addresses.ok) faults.of(row.line, addresses);
  const metres = metresOf(row, choices.unit, choices.commas, faults);
  const { type, mode } = types.of(cells, there);
  const said = (['unit', 'position', 'class', 'function', 'gel', 'circuit', 'notes'] as const).filter(
    (field) => cells[field] !== undefined,
  );
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
    ...Object.fromEntries(said.map((field) => [field, fitted(cells[field]!, LONGEST[field])])),
    ...metres,
  };
}

const whole = (text: string | undefined): number | undefined => {
  // `(101)` is how desks’ channels are written on plots.
  const number = Number(/^[(#]?\s*(\d+)(?:\.0+)?\s*\)?$/.exec(text?.trim() ?? '')?.[1] ?? 0);
  return number >= 1 && number <= HIGHEST_NUMBER ? number : undefined;
};

/** Most lamps that one row can be */
const MOST_IN_ROW = 500;

/** `101-104` is four lamps; undefined for a single number. */
function rangeOf(said: string): number[] | undefined {
  const [, from, to] = /^(\d+)\s*(?:-|–|—|to|thru|through|\.\.)\s*(\d+)$/i.exec(said) ?? [];
  const [first, last] = [whole(from), whole(to)];
  if (first === undefined || last === undefined || last <= first || last - first >= MOST_IN_ROW) return undefined;
  return Array.from({ length: last - first + 1 }, (_, i) => first + i);
}

/** Where each of some lamps in one row begins: as many addresses as lamps, or a range of channels that parts evenly. */
function placesOf(
  addresses: readonly SlotAddress[] | undefined,
  count: number,
  text: string,
): (SlotAddress[] | undefined)[] | undefined {
  if (count === 1 || !addresses || addresses.length === 0)
    return Array.from({ length: count }, () => addresses?.slice());
  if (addresses.length === count) return addresses.map((one) => [one]);
  const [start] = addresses as [SlotAddress];
  if (start.universe === 0) return Array.from({ length: count }, () => [start]);
  const last = Number(/(?:-|–|—|to|\.\.)\s*(?:\d+\s*[/.:]\s*)?(\d+)\s*$/i.exec(text)?.[1] ?? 0);
  const each = (last - start.channel + 1) / count;
  if (addresses.length > 1 || !Number.isInteger(each) || each < 1) return undefined;
  return Array.from({ length: count }, (_, i) => [{ ...start, channel: start.channel + i * each }]);
}

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
): { incoming: Incoming; bad: BadRow[]; questions: Question[] } {
  const known = new TypesByName(types);
  const lamps: IncomingLamp[] = [];
  const faults = new Faults();
  const between: number[] = [];
  const rows = table.rows.map((row): Row => {
    const cells: Partial<Record<Column, string>> = {};
    const dates: Partial<Record<Column, SheetDate>> = {};
    const shortened = new Set<Column>();
    choices.columns.forEach((column, at) => {
      if (!column) return;
      cells[column] = row.cells[at] ?? '';
      const date = row.dates?.get(at);
      if (date) dates[column] = date;
      if (row.shortened?.has(at)) shortened.add(column);
    });
    return { line: row.line, cells, dates, shortened };
  });
  const lengths = rows.flatMap(({ cells }) => [cells.x, cells.y, cells.z].filter((cell) => cell !== undefined));
  const how = { ...choices, commas: choices.commas ?? provenComma(lengths) };
  const byNumber = new Map(records.lamp.map((lamp) => [lamp.number, lamp]));
  const taken = new Set(rows.flatMap(({ cells }) => whole(cells.number) ?? []));
  const given: string[] = [];
  const linesOf = new Map<number, number[]>();
  rows.forEach((row, i) => {
    if (!isLamp(row, table.rows[i]!, table.heads)) {
      between.push(row.line);
      return;
    }
    const said = row.dates.number ? '' : (row.cells.number?.trim() ?? '');
    if (row.dates.number)
      faults.of(
        row.line,
        refuse('not-understood', `The spreadsheet made a date of the number (“${row.cells.number}”). Type it as text.`),
      );
    const many = rangeOf(said);
    let number = many?.[0] ?? whole(said);
    if (number === undefined) {
      number = whole(/\d+/.exec(said)?.[0]) ?? 1;
      while (taken.has(number)) number += 1;
      taken.add(number);
      given.push(`${said || `line ${row.line}`} gets ${number}`);
    }
    const own = row.cells.written?.trim();
    const written =
      own !== undefined ? fitted(own, 40) : said === '' || many || whole(said) !== undefined ? '' : fitted(said, 40);
    const numbers = many ?? [number];
    const first = readRow(row, number, written, how, known, records, byNumber.get(number), faults);
    const places = placesOf(first.addresses, numbers.length, row.cells.address ?? row.cells.channel ?? '');
    if (!places)
      faults.of(
        row.line,
        refuse('not-understood', `${said} is ${numbers.length} lamps; the row says only where ${number} begins.`),
      );
    for (const [at, its] of numbers.entries()) {
      linesOf.set(its, [...(linesOf.get(its) ?? []), row.line]);
      const lamp =
        at === 0
          ? first
          : {
              ...readRow(row, its, written, how, known, records, byNumber.get(its), new Faults()),
              addresses: undefined,
            };
      const placed = numbers.length === 1 ? lamp : { ...lamp, addresses: places ? places[at] : lamp.addresses };
      lamps.push(choices.columns.includes('number') || own !== undefined ? placed : { ...placed, written: undefined });
    }
  });
  const outOfSight = table.rows.filter(({ hidden }) => hidden).map(({ line }) => line);
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
    ...(outOfSight.length > 0
      ? [
          `${countOf(outOfSight.length, 'row')} hidden in the spreadsheet, read all the same: ${outOfSight.length === 1 ? 'line' : 'lines'} ${some(outOfSight)}.`,
        ]
      : []),
    ...(table.above > 0 ? [`${countOf(table.above, 'row')} above the heads.`] : []),
    ...(leftOut.length > 0
      ? [`Left out: the ${leftOut.length === 1 ? 'column' : 'columns'} ${leftOut.join(', ')}.`]
      : []),
  ];
  return {
    incoming: { types: [...known.used.values()], lamps, notes, file: null },
    bad: faults.bad,
    questions: [...faults.questions],
  };
}
