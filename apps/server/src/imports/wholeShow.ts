/** A whole show that arrives: how it differs record by record, and what importing it would write. */
import type { ImportRowReply } from '@taxiarch/core/contract';
import type { Plan } from '@taxiarch/core/edit';
import { planShow, showChanges } from '@taxiarch/core/format';
import type { ShowRecords } from '@taxiarch/core/records';

/** Instead of the keys of rows: everything but what is gone; of a show, everything */
export const ALL = 'all';

/** A whole show is taken as one; how it differs is told record by record. */
export function showRows(records: ShowRecords, next: ShowRecords): ImportRowReply[] {
  const rows = showChanges(records, next);
  const plain = { kind: 'record' as const, differs: [] };
  return rows.length === 0
    ? [{ ...plain, key: ALL, state: 'same', subject: `The whole show: ${next.show[0]?.name ?? ''}`, fields: [] }]
    : rows.map((row) => ({ ...plain, ...row }));
}

export function showPlan(records: ShowRecords, next: ShowRecords, keys: ReadonlySet<string>, sentence: string): Plan {
  const plan = planShow(records, next, sentence);
  const all = showChanges(records, next);
  if (keys.has(ALL) || all.every(({ key }) => keys.has(key))) return plan;
  return { sentence, lines: [], changes: plan.changes.filter(({ kind, id }) => keys.has(`${kind} ${id}`)) };
}
