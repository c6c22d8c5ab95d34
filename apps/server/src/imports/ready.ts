/** A file that has been read, beside the show: what it would change, and what taking it over would write. */
import { randomUUID } from 'node:crypto';
import { formatUniverses } from '@taxiarch/core/base/address';
import {
  besideShow,
  compareRig,
  consequencesOf,
  fitted,
  type ImportRow,
  type Incoming,
  planImport,
  settleTypes,
  type TypeChoices,
  typeName,
  type UnknownType,
} from '@taxiarch/core/files/arrival';
import type { ImportReady, ImportTableReply } from '@taxiarch/core/whole/contract';
import { added, changed, type Plan, recordName } from '@taxiarch/core/show/edit';
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
import {
  type Arrival,
  type FixtureType,
  PLAIN_ARRIVAL,
  type ShowRecords,
  type Universe,
} from '@taxiarch/core/show/records';
import { ok, type Result } from '@taxiarch/core/base/result';
import { earlierOf, hashOf, lastingKey, plainName, typesOf } from './remembered';
import { ALL, showPlan, showRows } from './wholeShow';

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

const NO_NOTES: readonly string[] = [];

interface Look {
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
function tableOf(sheets: readonly Sheet[], which: number | undefined): { at: number; table: Result<Table> } {
  if (which !== undefined && sheets[which]) return { at: which, table: tableIn(sheets[which]) };
  const tables = sheets.map((sheet) => tableIn(sheet));
  const at = Math.max(
    0,
    tables.findIndex((table, i) => table.ok && table.value.headLine > (sheets[i]!.rows[0]?.line ?? 1) - 1),
  );
  return { at, table: tables[at]! };
}

const SAMPLE = 3;

/** Universes that would be added because lamps are in them. */
function universesAdded({ changes }: Plan): string[] {
  const numbers = changes.flatMap(({ kind, rev, after }) =>
    kind === 'universe' && rev === null ? [(after as Universe).number] : [],
  );
  if (numbers.length === 0) return [];
  const [one, is] = numbers.length === 1 ? ['Universe', 'is'] : ['Universes', 'are'];
  return [`${one} ${formatUniverses(numbers)} ${is} not in the show yet, and would be added.`];
}

/** Sheets of a table that are not read, by name. */
function otherSheets(content: Content, read: readonly number[]): string[] {
  if (content.kind !== 'table' || content.sheets.length < 2) return [];
  const names = content.sheets.flatMap(({ name, hidden }, i) =>
    read.includes(i) ? [] : [hidden ? `${name} (hidden)` : name],
  );
  if (names.length === 0) return [];
  return [`Left out: the ${names.length === 1 ? 'sheet' : 'sheets'} ${names.join(', ')}.`];
}

export interface WriteRequest {
  readonly keys: readonly string[];
  /** Left as they are in lamps that are there */
  readonly fields: readonly string[];
  /** ISO 8601 */
  readonly at: string;
  /** The kept scene on which the show stands then; null for what is none */
  readonly file: string | null;
}

/** A file that was read, with what was said of it; compared anew where the show or what was said has changed. */
export class ReadyFile {
  private choices: Choices;
  private last: { records: ShowRecords; choices: Choices; look: Result<Look>; reply?: Result<ImportReady> } | undefined;
  private readonly earlier: Arrival | undefined;
  /** The show beside which the rows were last shown to anybody */
  private shown: ShowRecords | undefined;

  constructor(
    readonly name: string,
    readonly content: Content,
    records: ShowRecords,
  ) {
    const heads = this.heads();
    this.earlier = earlierOf(records, content.kind, name, heads);
    this.choices = {
      types: typesOf(this.earlier),
      sheet: undefined,
      also: [],
      table: this.tableFrom(this.earlier, heads),
    };
  }

  private heads(): readonly string[] {
    if (this.content.kind !== 'table') return [];
    const { table } = tableOf(this.content.sheets, undefined);
    return table.ok ? table.value.heads : [];
  }

  private tableFrom(earlier: Arrival | undefined, heads: readonly string[]): Partial<TableChoices> {
    if (!earlier || headsKey(earlier.heads) !== headsKey(heads)) return {};
    const { columns, unit, channelBase, universeBase } = earlier;
    return {
      columns: columns.map((column) => (column === '' ? null : column)) as TableChoices['columns'],
      ...({ unit, channelBase, universeBase } as Pick<TableChoices, 'unit' | 'channelBase' | 'universeBase'>),
    };
  }

  choose(said: Partial<Choices>): void {
    const { types, sheet, also, table } = this.choices;
    const other = said.sheet !== undefined && said.sheet !== sheet;
    this.choices = {
      types: { ...types, ...said.types },
      sheet: said.sheet ?? sheet,
      also: said.also ?? (other ? [] : also),
      // Another sheet has other columns.
      table: { ...(other ? {} : table), ...said.table },
    };
  }

  private look(records: ShowRecords): Result<Look> {
    const { last, choices } = this;
    if (last?.records === records && last.choices === choices) return last.look;
    const look = this.lookAnew(records);
    this.last = { records, choices, look };
    return look;
  }

  private lookAnew(records: ShowRecords): Result<Look> {
    const { content, choices } = this;
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
      if (!found.ok) return ok(this.unread(content.sheets, at, found.why));
      const how: TableChoices = { ...usualChoices(found.value), ...choices.table };
      const read = this.readSheets(content.sheets, { at, table: found.value, how }, records);
      incoming = read.incoming;
      table = this.tableReply(content.sheets, at, found.value, how, read);
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
  private readSheets(
    sheets: readonly Sheet[],
    { at, table, how }: { readonly at: number; readonly table: Table; readonly how: TableChoices },
    records: ShowRecords,
  ): ReturnType<typeof readLampTable> {
    const types = typesToChoose(records);
    const first = readLampTable(table, how, types, records);
    const others = this.choices.also.flatMap((which) => {
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
  private unread(sheets: readonly Sheet[], sheet: number, why: string): Look {
    const none: Table = { heads: [], headLine: 0, rows: [], above: 0 };
    const table = this.tableReply(sheets, sheet, none, usualChoices(none), { bad: [], questions: [] });
    return { rows: [], unknown: [], incoming: { types: [], lamps: [], notes: [], file: null }, notes: [why], table };
  }

  private tableReply(
    sheets: readonly Sheet[],
    sheet: number,
    { heads, headLine, rows }: Table,
    { columns, unit, channelBase, universeBase, dates, decimals, commas }: TableChoices,
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
      also: this.choices.also,
      dates: dates ?? '',
      decimals: decimals ?? '',
      commas: commas ?? '',
      questions,
      bad,
    };
  }

  /** How it compares with the show as it is now; made once for each state of either. */
  reply(records: ShowRecords): Result<ImportReady> {
    this.shown = records;
    const look = this.look(records);
    return (this.last!.reply ??= this.replyOf(look, records));
  }

  private replyOf(found: Result<Look>, records: ShowRecords): Result<ImportReady> {
    if (!found.ok) return found;
    const { rows, unknown, incoming, notes, table } = found.value;
    const { earlier } = this;
    const left = new Map(earlier?.left.map(({ key, hash }) => [key, hash]));
    const all = rows.filter(({ state }) => state === 'added' || state === 'changed');
    const rig = rigOf(records);
    const plan = all.length === 0 ? undefined : planImport(rig, { incoming, rows: all, sentence: '' }, randomUUID);
    return ok({
      state: 'ready',
      form: this.content.kind,
      rows:
        this.content.kind === 'show'
          ? showRows(records, this.content.records, left)
          : rows.map((row) => ({
              key: row.key,
              kind: row.kind,
              state: row.state,
              subject: row.subject,
              fields: row.fields,
              differs: row.kind === 'lamp' ? row.differs : [],
              ...(row.kind === 'lamp' && row.light && { light: row.light }),
              ...(left.get(lastingKey(row)) === hashOf(row) && { left: true }),
            })),
      notes: plan ? [...notes, ...universesAdded(plan)] : notes,
      unknown,
      brings: plan ? consequencesOf(rig, plan) : NO_NOTES,
      fields: earlier?.fields ?? [],
      known: earlier?.at ?? '',
      ...(table && { table }),
    });
  }

  /**
   * Records that these changes would write and that were changed since the rows were shown, by their names. Until the
   * rows are shown again, writing them would undo what nobody has seen.
   */
  staleIn({ changes }: Plan, records: ShowRecords): string[] {
    const { shown } = this;
    if (!shown || shown === records) return [];
    return changes.flatMap(({ kind, id, rev }) => {
      // What is remembered of the file itself belongs to this edit.
      if (kind === 'arrival') return [];
      const before = shown[kind].find((one) => one.id === id);
      return (before?.rev ?? null) === rev
        ? []
        : [recordName(kind, before ?? records[kind].find((one) => one.id === id)!, records)];
    });
  }

  /** What writing the chosen rows would do. */
  plan({ keys, fields, at, file }: WriteRequest, records: ShowRecords): Result<Plan> {
    const sentence = `Imported ${this.name}`;
    const { content } = this;
    const wanted = new Set(keys);
    const every = wanted.has(ALL);
    const rig = rigOf(records);
    if (content.kind === 'show') {
      const { plan, left } = showPlan(records, content.records, wanted, sentence);
      // One that stands in place of all that was there brings what it remembers itself.
      if (left.length === 0 || plan.changes.length === 0) return ok(plan);
      return ok({ ...plan, changes: [...plan.changes, this.remembered({ left, fields: [], at }, records)] });
    }
    const found = this.look(records);
    if (!found.ok) return found;
    const { rows, incoming } = found.value;
    const chosen = rows.filter(({ key, state }) => wanted.has(key) || (every && state !== 'gone'));
    const plan = planImport(
      rig,
      { incoming: { ...incoming, file }, rows: chosen, sentence, leave: new Set(fields) },
      randomUUID,
    );
    // Of a single type there is nothing to remember.
    if (plan.changes.length === 0 || content.kind === 'gdtf') return ok(plan);
    const imported = new Set(chosen);
    const left = rows
      .filter((row) => row.state !== 'same' && !imported.has(row))
      .map((row) => ({ key: lastingKey(row), hash: hashOf(row) }));
    const { table } = found.value;
    const asTable = table && {
      heads: table.heads.map((head) => fitted(head, 400)),
      columns: table.columns.map((column) => column ?? ''),
      unit: table.unit,
      channelBase: table.channelBase,
      universeBase: table.universeBase,
    };
    return ok({
      ...plan,
      changes: [...plan.changes, this.remembered({ left, fields: [...fields], at, ...asTable }, records)],
    });
  }

  /** What was decided, for the next version of the file. */
  private remembered(
    decided: Pick<Arrival, 'left' | 'fields' | 'at'> & Partial<Arrival>,
    records: ShowRecords,
  ): Plan['changes'][number] {
    const { content, choices, name } = this;
    // Taken back to “not known yet”, nothing was said.
    const said = Object.entries(choices.types).flatMap(([key, { typeId, modes }]) => {
      const pairs = Object.entries(modes).map(([mode, is]) => ({ said: mode, mode: is }));
      return typeId === '' ? [] : [{ said: key, typeId, modes: pairs.filter(({ mode }) => mode !== '') }];
    });
    const before = earlierOf(records, content.kind, name, []);
    const record: Arrival = {
      ...PLAIN_ARRIVAL,
      id: before?.id ?? randomUUID(),
      rev: before?.rev ?? 0,
      name: plainName(name),
      form: content.kind,
      types: said,
      ...decided,
    };
    return before ? changed('arrival', before, record) : added('arrival', record);
  }

  /** By which fixtures of a scene are told, those that are taken over when these rows are. */
  taken(keys: readonly string[], records: ShowRecords): string[] {
    const found = this.look(records);
    if (!found.ok) return [];
    const wanted = new Set(keys);
    return found.value.rows.flatMap((row) =>
      row.kind === 'lamp' && (wanted.has(row.key) || wanted.has(ALL) || row.state === 'same')
        ? (row.incoming?.source ?? [])
        : [],
    );
  }
}
