/** The show file: a whole show in one JSON document. Its schema is published in docs/show-file.schema.json. */
import type { FieldChange } from '../arrival';
import { countOf, RECORD_VERSION, upgradeShow, type LooseShow } from '../../show/edit';
import equal from 'fast-deep-equal';
import { ok, refuse, type Result } from '../../base/result';
import {
  added,
  changed,
  type Plan,
  type PlanLine,
  recordName,
  refuseChanges,
  removed,
  settleChanges,
  toMaps,
} from '../../show/edit';
import {
  type AnyRecord,
  checkRecord,
  emptyShow,
  type Kind,
  KINDS,
  type ShowRecords,
  DESCRIPTIONS,
} from '../../show/records';

export const SHOW_FORMAT = 'taxiarch-show';
/** The show file’s version is that of its records. */
export const SHOW_VERSION = RECORD_VERSION;
const MOST_CHARACTERS = 200_000_000;

export interface ShowFile {
  readonly format: typeof SHOW_FORMAT;
  readonly version: number;
  readonly records: ShowRecords;
  /** Kept files that the records name: SHA-256 in hexadecimal to base64 */
  readonly files: Readonly<Record<string, string>>;
}

export interface ReadShow extends ShowFile {
  /** What was left out, in sentences */
  readonly notes: readonly string[];
}

type Loose = Record<string, unknown>;
const rows = (records: Loose, kind: Kind): Loose[] => (Array.isArray(records[kind]) ? (records[kind] as Loose[]) : []);

const byId = (a: AnyRecord, b: AnyRecord): number => (a.id < b.id ? -1 : 1);

/** The same show gives the same text; revisions are left out of it. */
export function writeShowFile(records: ShowRecords, files: Readonly<Record<string, string>>): string {
  const sorted = Object.fromEntries(
    KINDS.map((kind) => [kind, [...records[kind]].sort(byId).map((one) => ({ ...one, rev: 0 }))]),
  );
  return JSON.stringify(
    { format: SHOW_FORMAT, version: SHOW_VERSION, records: sorted, files } satisfies Omit<ShowFile, 'records'> & {
      records: unknown;
    },
    null,
    1,
  );
}

/** The names of all kept files that records mention. */
export const filesOf = ({ show, type, mark, proof }: ShowRecords): string[] => [
  ...new Set([
    ...[...show, ...type].flatMap(({ file }) => file ?? []),
    ...mark.flatMap(({ photo }) => photo || []),
    ...proof.flatMap(({ sha256, files }) => [sha256, ...files.map((one) => one.sha256)]),
  ]),
];

/** Reads a show file of this or an older version; every record is checked, and how they hold together. */
export function readShowFile(text: string): Result<ReadShow> {
  if (text.length > MOST_CHARACTERS)
    return refuse('out-of-range', 'The show file is larger than 200 MB, the most that is read.');
  let parsed: unknown;
  try {
    parsed = JSON.parse(text);
  } catch {
    return refuse('not-understood', 'This is no JSON document, or it is cut short.');
  }
  if (typeof parsed !== 'object' || parsed === null || Array.isArray(parsed))
    return refuse('not-understood', 'This is no show file.');
  const { format, version, records, files = {}, ...others } = parsed as Loose;
  if (format !== SHOW_FORMAT) return refuse('not-understood', 'This is no show file of Taxiarch: it does not say so.');
  if (typeof version !== 'number' || !Number.isInteger(version) || version < 1)
    return refuse('not-understood', 'The show file does not say its version.');
  if (version > SHOW_VERSION)
    return refuse(
      'not-understood',
      `The show file is of version ${version}; this Taxiarch reads up to ${SHOW_VERSION}. Use a newer one.`,
    );
  const [other] = Object.keys(others);
  if (other !== undefined) return refuse('not-understood', `A show file has no part “${other}”.`);
  if (typeof records !== 'object' || records === null)
    return refuse('not-understood', 'The show file holds no records.');
  const odd = Object.entries(records as Loose).find(([, all]) => !Array.isArray(all));
  if (odd) return refuse('not-understood', `The records of kind ${odd[0]} are no list.`);
  if (
    typeof files !== 'object' ||
    files === null ||
    Object.entries(files).some(([name, content]) => !/^[0-9a-f]{64}$/.test(name) || typeof content !== 'string')
  )
    return refuse('not-understood', 'The files in the show file are not as they should be.');
  let moved: Loose;
  try {
    moved = upgradeShow(records as LooseShow, version) as Loose;
  } catch {
    // What the steps of older versions take for granted is not there.
    return refuse('not-understood', `The records are not as version ${version} has them.`);
  }
  const show: Record<string, AnyRecord[]> = {};
  for (const kind of KINDS) {
    const seen = new Set<string>();
    show[kind] = [];
    for (const row of rows(moved, kind)) {
      const checked = checkRecord(kind, row);
      if (!checked.ok)
        return refuse(
          'not-understood',
          `The ${recordName(kind, row as unknown as AnyRecord)} is wrong: ${checked.why}`,
        );
      if (seen.has(checked.value.id))
        return refuse('not-understood', `Two records of kind ${kind} have the id “${checked.value.id}”.`);
      seen.add(checked.value.id);
      show[kind].push({ ...checked.value, rev: 0 });
    }
  }
  const whole = show as unknown as ShowRecords;
  if (whole.show.length !== 1) return refuse('not-understood', 'A show file holds one show.');
  const start = toMaps(emptyShow());
  const changes = KINDS.flatMap((kind) => whole[kind].map((one) => added(kind, one)));
  const refused = refuseChanges(start, settleChanges(start, changes, 1));
  if (refused !== undefined) return refuse('not-understood', refused);
  const given = files as Record<string, string>;
  const unknown = Object.entries(moved).filter(
    ([kind, all]) => !(KINDS as readonly string[]).includes(kind) && (all as unknown[]).length > 0,
  );
  const lacking = filesOf(whole).filter((name) => given[name] === undefined);
  const notes = [
    ...unknown.map(
      ([kind, all]) =>
        `${countOf((all as unknown[]).length, 'record')} of a kind that is not known, “${kind}”, left out.`,
    ),
    ...(lacking.length > 0
      ? [
          `${countOf(lacking.length, 'kept file')} that records name ${lacking.length === 1 ? 'is' : 'are'} not in the show file: ${lacking.map((name) => name.slice(0, 12)).join(', ')}.`,
        ]
      : []),
  ];
  return ok({ format: SHOW_FORMAT, version: SHOW_VERSION, records: whole, files: given, notes });
}

export interface ShowChange {
  /** Kind and id of the record */
  readonly key: string;
  readonly state: 'added' | 'changed' | 'gone';
  readonly subject: string;
  readonly fields: readonly FieldChange[];
}

const LONGEST = 80;
const valueText = (value: unknown): string => {
  const text = typeof value === 'string' ? value : value === null || value === undefined ? '' : JSON.stringify(value);
  return text.length > LONGEST ? `${text.slice(0, LONGEST)}…` : text;
};

/** How a record differs, field by field as forms call them. */
function recordFields(kind: Kind, before: AnyRecord, after: AnyRecord): FieldChange[] {
  const [was, is] = [before, after] as unknown as readonly [Loose, Loose];
  return Object.entries(DESCRIPTIONS[kind].fields).flatMap(([key, { label }]) =>
    equal(was[key], is[key]) ? [] : [{ field: label, was: valueText(was[key]), is: valueText(is[key]) }],
  );
}

/**
 * Signed records of proof stay with their show, whatever other version of it takes its place. A show of another name has
 * its own; the signed ones of the show before it are in its history and files.
 */
const stays = (kind: Kind, now: ShowRecords, next: ShowRecords): boolean =>
  kind === 'proof' && now.show[0]?.name === next.show[0]?.name;

/** How another show differs from the one that is there, record by record. */
export function showChanges(now: ShowRecords, next: ShowRecords): ShowChange[] {
  return KINDS.flatMap((kind) => {
    const there = new Map<string, AnyRecord>(now[kind].map((record) => [record.id, record]));
    const row = (state: ShowChange['state'], record: AnyRecord, fields: readonly FieldChange[] = []): ShowChange => ({
      key: `${kind} ${record.id}`,
      ...{ state, subject: recordName(kind, record, state === 'gone' ? now : next), fields },
    });
    const rows = next[kind].flatMap((record): ShowChange[] => {
      const before = there.get(record.id);
      there.delete(record.id);
      if (!before) return [row('added', record)];
      const fields = recordFields(kind, before, record);
      return fields.length > 0 ? [row('changed', record, fields)] : [];
    });
    const gone = stays(kind, now, next) ? [] : [...there.values()];
    return [...rows, ...gone.map((record) => row('gone', record))];
  });
}

/** What putting a whole show in place of the one that is there would write. */
export function planShow(now: ShowRecords, next: ShowRecords, sentence: string): Plan {
  const changes: Plan['changes'][number][] = [];
  const lines: PlanLine[] = [];
  for (const kind of KINDS) {
    const there = new Map<string, AnyRecord>(now[kind].map((record) => [record.id, record]));
    for (const record of next[kind]) {
      const before = there.get(record.id);
      there.delete(record.id);
      if (!before) {
        changes.push(added(kind, record));
        lines.push({ subject: recordName(kind, record, next), before: '', after: 'added' });
      } else if (!equal({ ...before, rev: 0 }, { ...record, rev: 0 })) {
        changes.push(changed(kind, before, record));
        lines.push({ subject: recordName(kind, record, next), before: 'there', after: 'changed' });
      }
    }
    if (stays(kind, now, next)) continue;
    for (const record of there.values()) {
      changes.push(removed(kind, record));
      lines.push({ subject: recordName(kind, record, now), before: 'there', after: '' });
    }
  }
  return { sentence, changes, lines };
}
