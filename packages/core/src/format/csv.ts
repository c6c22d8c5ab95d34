/** Tables of lamps in, and of lamps, channels and pixels out, as comma-separated values (RFC 4180). */
import Papa from 'papaparse';
import {
  formatAddress,
  formatPortAddress,
  fromAbsolute,
  type NumberingBase,
  readAddress,
  readPortAddress,
  type SlotAddress,
  toAbsolute,
} from '../address';
import { ok, refuse, type Result } from '../result';
import { attributeLabel, footprintOf } from '../fixture';
import { addressesOf, type Patch, slotsOf } from '../patch';
import { absoluteEnds, pixelAccount } from '../pixel';
import type { FixtureType, ShowRecords } from '../records';
import type { Incoming, IncomingLamp } from './rigImport';
import { writeTable } from './table';

const MOST_CHARACTERS = 20_000_000;
const MOST_ROWS = 50_000;

export interface Table {
  readonly heads: readonly string[];
  readonly rows: readonly (readonly string[])[];
}

/** Reads a table with its heads in the first row; comma, semicolon or tab is found out. */
export function readTable(text: string): Result<Table> {
  if (text.length > MOST_CHARACTERS)
    return refuse('out-of-range', 'The table is larger than 20 MB, the most that is read.');
  if (text.includes('\0')) return refuse('not-understood', 'This is no text, so it cannot be a table.');
  const parsed = Papa.parse<string[]>(text.replace(/^\uFEFF/, '').trim(), {
    skipEmptyLines: 'greedy',
    delimitersToGuess: [',', ';', '\t'],
  });
  const [heads, ...rows] = parsed.data;
  if (!heads || heads.length < 2)
    return refuse('not-understood', 'The table needs heads in its first row, and two columns or more.');
  if (rows.length === 0) return refuse('not-understood', 'The table has heads but no rows.');
  if (rows.length > MOST_ROWS) return refuse('out-of-range', `The table has more than ${MOST_ROWS} rows.`);
  return ok({ heads: heads.map((head) => head.trim()), rows });
}

/** What a column can mean. */
export const COLUMNS = [
  'number',
  'name',
  'maker',
  'type',
  'mode',
  'address',
  'universe',
  'channel',
  'place',
  'group',
  'x',
  'y',
  'z',
] as const;
export type Column = (typeof COLUMNS)[number];

const WORDS: Readonly<Record<Column, RegExp>> = {
  number: /^(fixture|lamp|unit|chan(nel)?)?\s*(no\.?|nr\.?|num(ber)?|id|#)$|^(fixture|lamp)$/i,
  name: /^(fixture |lamp )?(name|label)$/i,
  maker: /^(maker|manufacturer|make|brand)$/i,
  type: /^(fixture |lamp |instrument )?(type|model)$/i,
  mode: /^(dmx )?mode$|personality/i,
  address: /^(dmx )?(address|addr\.?|patch)$|universe[/.]/i,
  universe: /^(dmx )?(universe|univ\.?|uni)$/i,
  channel: /^(dmx |start )?(channel|start|slot)$/i,
  place: /^(place|location|layer|area)$|^position$/i,
  group: /^groups?$/i,
  x: /^x\b|^pos(ition)? ?x/i,
  y: /^y\b|^pos(ition)? ?y/i,
  z: /^z\b|^pos(ition)? ?z|^height/i,
};

/** A first guess at what each column means, by its head; null for columns that are left out. */
export function guessColumns(heads: readonly string[]): (Column | null)[] {
  const taken = new Set<Column>();
  return heads.map((head) => {
    const found = COLUMNS.find((column) => !taken.has(column) && WORDS[column].test(head.trim()));
    if (!found) return null;
    taken.add(found);
    return found;
  });
}

export const UNITS = { m: 1, cm: 0.01, mm: 0.001, ft: 0.3048 } as const;
export type LengthUnit = keyof typeof UNITS;

export interface TableChoices {
  readonly columns: readonly (Column | null)[];
  readonly unit: LengthUnit;
  /** The lowest channel is called so */
  readonly channelBase: NumberingBase;
  /** The lowest universe is called so */
  readonly universeBase: NumberingBase;
}

export interface BadRow {
  /** As an editor counts lines: the heads are line 1 */
  readonly line: number;
  readonly why: string;
}

type Cells = Readonly<Partial<Record<Column, string>>>;

/** `3/47`, `3.47`, `0.1.2/47` (Art-Net, which must be in the show), or an absolute channel. */
function readAnyAddress(
  text: string,
  { channelBase, universeBase }: TableChoices,
  { universe }: ShowRecords,
): Result<SlotAddress> {
  const shifted = (number: number, channel: number): Result<SlotAddress> =>
    readAddress(`${number + 1 - universeBase}/${channel + 1 - channelBase}`);
  const [head = '', tail] = text.split(/[/:]/);
  if (tail !== undefined && head.includes('.')) {
    const port = readPortAddress(head);
    if (!port.ok) return port;
    const found = universe.find(({ protocol, wire }) => protocol === 'artnet' && wire === port.value);
    return found
      ? readAddress(`${found.number}/${Number(tail) + 1 - channelBase}`)
      : refuse('not-found', `No universe of the show travels as Art-Net ${formatPortAddress(port.value)}.`);
  }
  const pair = /^(\d+)\s*[/:.]\s*(\d+)$/.exec(text.trim());
  if (pair) return shifted(Number(pair[1]), Number(pair[2]));
  if (/^\d+$/.test(text.trim())) return fromAbsolute(Number(text), channelBase);
  return refuse('not-understood', `“${text}” is no address.`);
}

function readAddresses(cells: Cells, choices: TableChoices, records: ShowRecords): Result<SlotAddress[]> {
  if (cells.universe !== undefined && cells.universe !== '') {
    const address = readAnyAddress(`${cells.universe}/${cells.channel || cells.address || ''}`, choices, records);
    return address.ok ? ok([address.value]) : address;
  }
  const text = cells.address || cells.channel;
  if (text === undefined || text === '') return ok([]);
  const addresses: SlotAddress[] = [];
  for (const part of text.split(/[+&]|\s{2,}/)) {
    const address = readAnyAddress(part.trim(), choices, records);
    if (!address.ok) return address;
    addresses.push(address.value);
  }
  return ok(addresses);
}

const key = (text: string): string =>
  text
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, ' ')
    .trim();

function readRow(
  cells: Cells,
  choices: TableChoices,
  types: ReadonlyMap<string, FixtureType>,
  records: ShowRecords,
): Result<IncomingLamp> {
  const number = Number(cells.number);
  if (!Number.isInteger(number) || number < 1 || number > 999_999)
    return refuse('not-understood', `“${cells.number ?? ''}” is no lamp number.`);
  const typeText = `${cells.maker ?? ''} ${cells.type ?? ''}`;
  const type = types.get(key(typeText)) ?? types.get(key(cells.type ?? ''));
  if (!type)
    return refuse('not-found', `The type “${typeText.trim()}” is not known; make it first, or import its file.`);
  const wanted = key(cells.mode ?? '');
  const slots = /^(\d+) ?(ch|channels?|dmx)?$/.exec(wanted)?.[1];
  const mode =
    wanted === ''
      ? type.modes[0]
      : (type.modes.find(({ name }) => key(name) === wanted) ??
        type.modes.find((one) => slots !== undefined && footprintOf(one) === Number(slots)));
  if (!mode) return refuse('not-found', `${type.maker} ${type.name} has no mode “${cells.mode ?? ''}”.`);
  const addresses = readAddresses(cells, choices, records);
  if (!addresses.ok) return addresses;
  const metres: Partial<Record<'x' | 'y' | 'z', number>> = {};
  for (const axis of ['x', 'y', 'z'] as const) {
    const text = cells[axis];
    if (text === undefined || text.trim() === '') continue;
    const length = Number(text.replace(',', '.')) * UNITS[choices.unit];
    if (!Number.isFinite(length) || Math.abs(length) > 10_000)
      return refuse('not-understood', `“${text}” is no length for ${axis}.`);
    metres[axis] = Math.round(length * 1000) / 1000;
  }
  return ok({
    id: undefined,
    number,
    name: cells.name?.trim() || `${type.name} ${number}`,
    typeId: type.id,
    mode: mode.name,
    addresses: addresses.value,
    ...(cells.place !== undefined && { place: cells.place.trim() }),
    ...(cells.group !== undefined && {
      groups: cells.group
        .split(/[;,]/)
        .map((one) => one.trim())
        .filter((one) => one !== ''),
    }),
    ...metres,
  });
}

/** The lamps of a table, and the rows that are none, each with its reason. */
export function readLampTable(
  table: Table,
  choices: TableChoices,
  types: readonly FixtureType[],
  records: ShowRecords,
): { incoming: Incoming; bad: BadRow[] } {
  const known = new Map<string, FixtureType>();
  for (const type of [...types].reverse()) {
    known.set(key(type.name), type);
    known.set(key(`${type.maker} ${type.name}`), type);
  }
  const lamps: IncomingLamp[] = [];
  const bad: BadRow[] = [];
  const numbers = new Map<number, number>();
  table.rows.forEach((row, i) => {
    const cells: Partial<Record<Column, string>> = {};
    choices.columns.forEach((column, at) => {
      if (column) cells[column] = (row[at] ?? '').trim();
    });
    const lamp = readRow(cells, choices, known, records);
    const line = i + 2;
    if (!lamp.ok) bad.push({ line, why: lamp.why });
    else if (numbers.has(lamp.value.number))
      bad.push({ line, why: `Number ${lamp.value.number} stands in line ${numbers.get(lamp.value.number)} already.` });
    else {
      numbers.set(lamp.value.number, line);
      lamps.push(lamp.value);
    }
  });
  const used = new Set(lamps.map(({ typeId }) => typeId));
  return { incoming: { types: types.filter(({ id }) => used.has(id)), lamps, notes: [], file: null }, bad };
}

/** Millimetres */
const DECIMALS = 3;

export function writeLampTable({ lamp, type, place }: ShowRecords): string {
  const types = new Map(type.map((one) => [one.id, one]));
  const places = new Map(place.map(({ id, name }) => [id, name]));
  const rows = [...lamp]
    .sort((a, b) => a.number - b.number)
    .map((one) => {
      const its = types.get(one.typeId);
      return [
        one.number,
        one.name,
        its?.maker ?? '',
        its?.name ?? '',
        one.mode,
        addressesOf(one).map(formatAddress).join(' + '),
        toAbsolute(one),
        places.get(one.placeId ?? '') ?? '',
        one.groups.join('; '),
        ...[one.x, one.y, one.z].map((metres) => Number(metres.toFixed(DECIMALS))),
      ];
    });
  return writeTable(
    ['Number', 'Name', 'Maker', 'Type', 'Mode', 'Address', 'Absolute', 'Place', 'Group', 'X', 'Y', 'Z'],
    rows,
  );
}

/** Every slot that carries something: where, whose, what. */
export function writeChannelTable(patch: Patch): string {
  const rows = [...patch.all()].flatMap((patched) =>
    patched.mode.channels.flatMap((channel) =>
      slotsOf(patched, channel).map((at, byte) => [
        formatAddress(at),
        toAbsolute(at),
        patched.lamp.number,
        patched.lamp.name,
        channel.attribute,
        attributeLabel(channel.attribute),
        channel.cell ?? '',
        byte === 0 ? 'coarse' : 'fine',
      ]),
    ),
  );
  rows.sort((a, b) => Number(a[1]) - Number(b[1]));
  return writeTable(['Address', 'Absolute', 'Number', 'Name', 'Attribute', 'In words', 'Cell', 'Byte'], rows);
}

export function writePixelTable({ run, machine }: Pick<ShowRecords, 'run' | 'machine'>): string {
  const rows = pixelAccount(run, machine).runs.map((one) => [
    one.run.number,
    one.run.name,
    one.run.count,
    one.run.order,
    one.run.bits,
    one.channels,
    one.universes.join(' '),
    one.first ? formatAddress(one.first) : '',
    one.last ? formatAddress(one.last) : '',
    ...(absoluteEnds(one, 1) ?? ['', '']),
    ...(absoluteEnds(one, 0) ?? ['', '']),
    one.controller,
    one.run.output ?? '',
    one.run.nulls,
    one.run.reversed ? 'yes' : 'no',
  ]);
  return writeTable(
    [
      'Number',
      'Name',
      'Pixels',
      'Order',
      'Bits',
      'Channels',
      'Universes',
      'First',
      'Last',
      'First absolute from 1',
      'Last absolute from 1',
      'First absolute from 0',
      'Last absolute from 0',
      'Controller',
      'Output',
      'Null pixels',
      'Reversed',
    ],
    rows,
  );
}
