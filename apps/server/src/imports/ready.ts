/** A file that has been read, beside the show: what it would change, and what taking it over would write. */
import { randomUUID } from 'node:crypto';
import { formatUniverses } from '@taxiarch/core/base/address';
import { consequencesOf, fitted, planImport } from '@taxiarch/core/files/arrival';
import type { ImportReady } from '@taxiarch/core/whole/contract';
import { added, changed, type Plan, recordName } from '@taxiarch/core/show/edit';
import { headsKey, type TableChoices } from '@taxiarch/core/files/format';
import { rigOf } from '@taxiarch/core/rig/patch';
import { type Arrival, PLAIN_ARRIVAL, type ShowRecords, type Universe } from '@taxiarch/core/show/records';
import { ok, type Result } from '@taxiarch/core/base/result';
import { lookAt, tableOf, type Choices, type Content, type Look } from './look';
import { earlierOf, hashOf, lastingKey, plainName, typesOf } from './remembered';
import { ALL, showPlan, showRows } from './wholeShow';

const NO_NOTES: readonly string[] = [];

/** Universes that would be added because lamps are in them. */
function universesAdded({ changes }: Plan): string[] {
  const numbers = changes.flatMap(({ kind, rev, after }) =>
    kind === 'universe' && rev === null ? [(after as Universe).number] : [],
  );
  if (numbers.length === 0) return [];
  const [one, is] = numbers.length === 1 ? ['Universe', 'is'] : ['Universes', 'are'];
  return [`${one} ${formatUniverses(numbers)} ${is} not in the show yet, and would be added.`];
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
    const look = lookAt(this.content, choices, records);
    this.last = { records, choices, look };
    return look;
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
