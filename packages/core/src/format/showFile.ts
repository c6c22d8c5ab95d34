/** The show file: a whole show in one JSON document. Its schema is published in docs/show-file.schema.json. */
import equal from 'fast-deep-equal';
import { refuse, read, type Read } from '../address';
import { added, changed, removed, type Plan, type PlanLine } from '../patch';
import {
  KINDS,
  checkRecord,
  emptyShow,
  refuseChanges,
  settleChanges,
  toMaps,
  upgradeRecord,
  type AnyRecord,
  type Kind,
  type ShowRecords,
} from '../show';

export const SHOW_FORMAT = 'taxiarch-show';
export const SHOW_VERSION = 5;
const MOST_CHARACTERS = 200_000_000;

export interface ShowFile {
  readonly format: typeof SHOW_FORMAT;
  readonly version: number;
  readonly records: ShowRecords;
  /** Kept files that the records name: SHA-256 in hexadecimal to base64 */
  readonly files: Readonly<Record<string, string>>;
}

type Loose = Record<string, unknown>;
const rows = (records: Loose, kind: Kind): Loose[] => (Array.isArray(records[kind]) ? (records[kind] as Loose[]) : []);

const upgraded = (records: Loose, kind: Kind): Loose => ({
  ...records,
  [kind]: rows(records, kind).map((one) => upgradeRecord(kind, one)),
});

/** Each brings the records of one version to the next. */
const MIGRATIONS: Readonly<Record<number, (records: Loose) => Loose>> = {
  1: (records) => ({
    ...records,
    show: rows(records, 'show').map((show) => ({ file: null, ...show })),
    type: rows(records, 'type').map((type) => ({ kind: 'other', file: null, ...type })),
    lamp: rows(records, 'lamp').map((lamp) => ({
      blocks: [],
      groups: [],
      tag: '',
      twin: null,
      locked: false,
      ...lamp,
    })),
    machine: rows(records, 'machine').map((machine) => ({ controller: null, ...machine })),
    run: rows(records, 'run'),
  }),
  2: (records) => upgraded(records, 'machine'),
  3: (records) => upgraded(records, 'source'),
  4: (records) => upgraded(upgraded(records, 'model'), 'link'),
};

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
export const filesOf = ({ show, type }: ShowRecords): string[] => [
  ...new Set([...show, ...type].flatMap(({ file }) => file ?? [])),
];

/** Reads a show file of this or an older version; every record is checked, and how they hold together. */
export function readShowFile(text: string): Read<ShowFile> {
  if (text.length > MOST_CHARACTERS) return refuse('The show file is larger than 200 MB, the most that is read.');
  let parsed: unknown;
  try {
    parsed = JSON.parse(text);
  } catch {
    return refuse('This is no JSON document, or it is cut short.');
  }
  if (typeof parsed !== 'object' || parsed === null || Array.isArray(parsed)) return refuse('This is no show file.');
  const { format, version, records, files = {} } = parsed as Loose;
  if (format !== SHOW_FORMAT) return refuse('This is no show file of Taxiarch: it does not say so.');
  if (typeof version !== 'number' || !Number.isInteger(version) || version < 1)
    return refuse('The show file does not say its version.');
  if (version > SHOW_VERSION)
    return refuse(
      `The show file is of version ${version}; this Taxiarch reads up to ${SHOW_VERSION}. Use a newer one.`,
    );
  if (typeof records !== 'object' || records === null) return refuse('The show file holds no records.');
  if (
    typeof files !== 'object' ||
    files === null ||
    Object.entries(files).some(([name, content]) => !/^[0-9a-f]{64}$/.test(name) || typeof content !== 'string')
  )
    return refuse('The files in the show file are not as they should be.');
  let moved = records as Loose;
  for (let from = version; from < SHOW_VERSION; from += 1) moved = MIGRATIONS[from]!(moved);
  const show: Record<string, AnyRecord[]> = {};
  for (const kind of KINDS) {
    if (moved[kind] !== undefined && !Array.isArray(moved[kind]))
      return refuse(`The records of kind ${kind} are no list.`);
    const seen = new Set<string>();
    show[kind] = [];
    for (const row of rows(moved, kind)) {
      const checked = checkRecord(kind, row);
      if (!checked.ok) return refuse(`A record of kind ${kind} is wrong: ${checked.faults[0]!.why}`);
      if (seen.has(checked.value.id)) return refuse(`Two records of kind ${kind} have the id “${checked.value.id}”.`);
      seen.add(checked.value.id);
      show[kind].push({ ...checked.value, rev: 0 });
    }
  }
  const whole = show as unknown as ShowRecords;
  if (whole.show.length !== 1) return refuse('A show file holds one show.');
  const start = toMaps(emptyShow());
  const changes = KINDS.flatMap((kind) => whole[kind].map((one) => added(kind, one)));
  const refused = refuseChanges(start, settleChanges(start, changes, 1));
  if (refused !== undefined) return refuse(refused);
  return read({ format: SHOW_FORMAT, version: SHOW_VERSION, records: whole, files: files as Record<string, string> });
}

const WORDS: Readonly<Record<Kind, string>> = {
  show: 'the show',
  place: 'place',
  type: 'type',
  universe: 'universe',
  lamp: 'lamp',
  source: 'source',
  network: 'address plan',
  model: 'model',
  machine: 'machine',
  run: 'run',
  snapshot: 'snapshot',
  route: 'route',
  control: 'control',
  link: 'link',
};

function nameOf(kind: Kind, record: AnyRecord): string {
  const { number, name } = record as { number?: number; name?: string };
  return `${WORDS[kind]} ${[number, name].filter((part) => part !== undefined && part !== '').join(' ')}`;
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
        lines.push({ subject: nameOf(kind, record), before: '', after: 'added' });
      } else if (!equal({ ...before, rev: 0 }, { ...record, rev: 0 })) {
        changes.push(changed(kind, before, record));
        lines.push({ subject: nameOf(kind, record), before: 'there', after: 'changed' });
      }
    }
    for (const record of there.values()) {
      changes.push(removed(kind, record));
      lines.push({ subject: nameOf(kind, record), before: 'there', after: '' });
    }
  }
  return { sentence, changes, lines };
}
