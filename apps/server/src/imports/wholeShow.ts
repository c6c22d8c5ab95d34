/** A whole show that arrives: how it differs record by record, and what importing it would write. */
import type { ImportRowReply } from '@taxiarch/core/whole/contract';
import type { Plan } from '@taxiarch/core/show/edit';
import { fieldText } from '@taxiarch/core/files/arrival';
import { planShow, showChanges, type ShowChange } from '@taxiarch/core/files/format';
import { type AnyRecord, type Arrival, KINDS, type ShowRecords } from '@taxiarch/core/show/records';
import { hashOfText } from './remembered';

/** Instead of the keys of rows: everything but what is gone; of a show, everything */
export const ALL = 'all';

/** How it differs. What was decided here of files is no part of what a file says, and is not told as gone. */
const differing = (records: ShowRecords, next: ShowRecords): ShowChange[] =>
  showChanges(records, next).filter(({ key, state }) => state !== 'gone' || !key.startsWith('arrival '));

/** Hashes of rows: what the file says of a record, and how that stands to the one that is there */
function hashing(next: ShowRecords): (row: ShowChange) => string {
  const said = new Map(
    KINDS.flatMap((kind) => next[kind].map((record): [string, AnyRecord] => [`${kind} ${record.id}`, record])),
  );
  return ({ key, state, fields }) =>
    hashOfText(JSON.stringify([state, fields.map(fieldText), { ...said.get(key), rev: 0 }]));
}

/** A whole show is taken as one; how it differs is told record by record, with what was left out of it `before`. */
export function showRows(
  records: ShowRecords,
  next: ShowRecords,
  before: ReadonlyMap<string, string>,
): ImportRowReply[] {
  const hash = hashing(next);
  const rows = differing(records, next).map((row) => ({
    ...row,
    ...(before.get(row.key) === hash(row) && { left: true }),
  }));
  const plain = { kind: 'record' as const, differs: [] };
  return rows.length === 0
    ? [{ ...plain, key: ALL, state: 'same', subject: `The whole show: ${next.show[0]?.name ?? ''}`, fields: [] }]
    : rows.map((row) => ({ ...plain, ...row }));
}

/** What importing these rows would write, and the rows that it leaves out. */
export function showPlan(
  records: ShowRecords,
  next: ShowRecords,
  keys: ReadonlySet<string>,
  sentence: string,
): { readonly plan: Plan; readonly left: Arrival['left'] } {
  const plan = planShow(records, next, sentence);
  const rest = keys.has(ALL) ? [] : differing(records, next).filter(({ key }) => !keys.has(key));
  if (rest.length === 0) return { plan, left: [] };
  const changes = plan.changes.filter(({ kind, id }) => keys.has(`${kind} ${id}`));
  const hash = hashing(next);
  return { plan: { sentence, lines: [], changes }, left: rest.map((row) => ({ key: row.key, hash: hash(row) })) };
}
