/** A file that has been read, beside the show: its table as it was said to be read, its types, and what differs. */
import {
  besideShow,
  compareRig,
  type ImportRow,
  type Incoming,
  settleTypes,
  type TypeChoices,
  typeName,
  type UnknownType,
} from '@taxiarch/core/files/arrival';
import type { ImportTableReply } from '@taxiarch/core/whole/contract';
import {
  headsKey,
  readLampTable,
  type Sheet,
  type Table,
  type TableChoices,
  tableIn,
  usualChoices,
  type BadRow,
  type Question,
} from '@taxiarch/core/files/format';
import { LIBRARY } from '@taxiarch/core/rig/library';
import { rigOf } from '@taxiarch/core/rig/patch';
import type { FixtureType, ShowRecords } from '@taxiarch/core/show/records';
import { ok, type Result } from '@taxiarch/core/base/result';

export type Content =
  | { readonly kind: 'mvr'; readonly incoming: Incoming }
  | { readonly kind: 'gdtf'; readonly type: FixtureType; readonly notes: readonly string[] }
  | { readonly kind: 'table'; readonly sheets: readonly Sheet[] }
  | { readonly kind: 'show'; readonly records: ShowRecords; readonly notes: readonly string[] };

/** What a person has said of a file so far. */
export interface Choices {
  readonly types: TypeChoices;
  /** Which sheet of a table, from 0; undefined for the first that is one */
  readonly sheet: number | undefined;
  /** Further sheets that are read with it */
  readonly also: readonly number[];
  readonly table: Partial<TableChoices>;
}

/** What was found in a file, beside the show */
export interface Look {
  readonly rows: readonly ImportRow[];
  readonly unknown: readonly UnknownType[];
  readonly incoming: Incoming;
  readonly notes: readonly string[];
  readonly table?: ImportTableReply;
}

/** Types that unknown ones can be: those of the show, then those of the library. */
function typesToChoose({ type: types }: ShowRecords): FixtureType[] {
  const there = new Set(types.map(typeName));
  return [...types, ...LIBRARY.filter((type) => !there.has(typeName(type)))];
}

/** The table that is read: of the sheet that is chosen, else of the first that has heads. */
export function tableOf(sheets: readonly Sheet[], which: number | undefined): { at: number; table: Result<Table> } {
  if (which !== undefined && sheets[which]) return { at: which, table: tableIn(sheets[which]) };
  const tables = sheets.map((sheet) => tableIn(sheet));
  const at = Math.max(
    0,
    tables.findIndex((table, i) => table.ok && table.value.headLine > (sheets[i]!.rows[0]?.line ?? 1) - 1),
  );
  return { at, table: tables[at]! };
}

const SAMPLE = 3;

/** Sheets of a table that are not read, by name. */
function otherSheets(content: Content, read: readonly number[]): string[] {
  if (content.kind !== 'table' || content.sheets.length < 2) return [];
  const names = content.sheets.flatMap(({ name, hidden }, i) =>
    read.includes(i) ? [] : [hidden ? `${name} (hidden)` : name],
  );
  if (names.length === 0) return [];
  return [`Left out: the ${names.length === 1 ? 'sheet' : 'sheets'} ${names.join(', ')}.`];
}

/** What a file holds, read as it was said, beside the show. */
export function lookAt(content: Content, choices: Choices, records: ShowRecords): Result<Look> {
  const rig = rigOf(records);
  if (content.kind === 'gdtf') {
    const incoming = { types: [content.type], lamps: [], notes: content.notes, file: null };
    const rows = compareRig(rig, incoming).filter(({ kind, state }) => kind === 'type' || state !== 'gone');
    return ok({ rows, unknown: [], incoming, notes: content.notes });
  }
  if (content.kind === 'show')
    return ok({
      rows: [],
      unknown: [],
      incoming: { types: [], lamps: [], notes: [], file: null },
      notes: content.notes,
    });
  let incoming: Incoming;
  let table: ImportTableReply | undefined;
  if (content.kind === 'mvr') incoming = content.incoming;
  else {
    const { at, table: found } = tableOf(content.sheets, choices.sheet);
    // Another sheet can still be chosen.
    if (!found.ok && choices.sheet === undefined) return found;
    if (!found.ok) return ok(unread(content.sheets, at, found.why, choices));
    const how: TableChoices = { ...usualChoices(found.value), ...choices.table };
    const read = readSheets(content.sheets, { at, table: found.value, how }, choices, records);
    incoming = read.incoming;
    table = tableReply(content.sheets, at, found.value, { ...how, also: choices.also }, read);
  }
  const known = besideShow(records, incoming);
  const settled = settleTypes(known, typesToChoose(records), choices.types);
  const rows = compareRig(rig, settled.incoming);
  return ok({
    rows,
    unknown: settled.unknown,
    incoming: settled.incoming,
    notes: [...settled.incoming.notes, ...otherSheets(content, table ? [table.sheet, ...choices.also] : [])],
    ...(table && { table }),
  });
}

/** The sheet that is read, and those that are read with it. */
function readSheets(
  sheets: readonly Sheet[],
  { at, table, how }: { readonly at: number; readonly table: Table; readonly how: TableChoices },
  { also }: Choices,
  records: ShowRecords,
): ReturnType<typeof readLampTable> {
  const types = typesToChoose(records);
  const first = readLampTable(table, how, types, records);
  const others = also.flatMap((which) => {
    const found = which === at || !sheets[which] ? undefined : tableIn(sheets[which]);
    if (!found?.ok) return [];
    const usual = usualChoices(found.value);
    const alike = headsKey(found.value.heads) === headsKey(table.heads);
    const read = readLampTable(found.value, { ...how, columns: alike ? how.columns : usual.columns }, types, records);
    const named = (line: string) => `${sheets[which]!.name}: ${line}`;
    return [
      {
        ...read,
        incoming: { ...read.incoming, notes: read.incoming.notes.map(named) },
        bad: read.bad.map(({ line, why }) => ({ line, why: named(why) })),
      },
    ];
  });
  const all = [first, ...others];
  const known = new Map(all.flatMap(({ incoming }) => incoming.types.map((type) => [type.id, type])));
  return {
    incoming: {
      types: [...known.values()],
      lamps: all.flatMap(({ incoming }) => incoming.lamps),
      notes: all.flatMap(({ incoming }) => incoming.notes),
      file: null,
    },
    bad: all.flatMap(({ bad }) => bad),
    questions: [...new Set(all.flatMap(({ questions }) => questions))],
  };
}

/** A sheet that is no table, where another one can be chosen. */
function unread(sheets: readonly Sheet[], sheet: number, why: string, { also }: Choices): Look {
  const none: Table = { heads: [], headLine: 0, rows: [], above: 0 };
  const table = tableReply(sheets, sheet, none, { ...usualChoices(none), also }, { bad: [], questions: [] });
  return { rows: [], unknown: [], incoming: { types: [], lamps: [], notes: [], file: null }, notes: [why], table };
}

function tableReply(
  sheets: readonly Sheet[],
  sheet: number,
  { heads, headLine, rows }: Table,
  { columns, unit, channelBase, universeBase, dates, decimals, commas, also }: TableChoices & Pick<Choices, 'also'>,
  { bad, questions }: { readonly bad: readonly BadRow[]; readonly questions: readonly Question[] },
): ImportTableReply {
  return {
    sheets: sheets.map(({ name }) => name),
    sheet,
    headLine,
    heads,
    sample: rows.slice(0, SAMPLE).map(({ cells }) => cells),
    rows: rows.length,
    columns: heads.map((_, i) => columns[i] ?? null),
    unit,
    channelBase,
    universeBase,
    also,
    dates: dates ?? '',
    decimals: decimals ?? '',
    commas: commas ?? '',
    questions,
    bad,
  };
}
