/** The history read back: what an edit changed, in lines, and the way back to the show as it was. */
import { type AnyRecord, type Kind, KINDS, type ShowRecords } from '../records';
import { recordDifference } from './difference';
import { type Edit, type ProposedChange, sameContent, type ShowMaps } from './edit';
import type { PlanLine } from './plan';
import { recordName } from './recordName';

/** Ids in a text become the names of the records they stand for. */
function withNames(text: string, names: ReadonlyMap<string, string>): string {
  const whole = names.get(text);
  if (whole !== undefined) return whole;
  return text
    .split(', ')
    .map((part) => names.get(part) ?? part)
    .join(', ');
}

/** What an edit changed, one line a field; records that were added or removed are one line each. */
export function editLines({ changes }: Pick<Edit, 'changes'>, show: ShowRecords): PlanLine[] {
  const names = new Map<string, string>();
  for (const kind of KINDS) for (const record of show[kind]) names.set(record.id, recordName(kind, record, show));
  for (const { kind, id, before, after } of changes) names.set(id, recordName(kind, (after ?? before)!, show));
  return changes.flatMap(({ kind, before, after }): PlanLine[] => {
    if (!before) return after ? [{ subject: recordName(kind, after, show), before: '', after: 'added' }] : [];
    const subject = recordName(kind, before, show);
    if (!after) return [{ subject, before: 'there', after: 'deleted' }];
    return recordDifference(kind, before as never, after as never, subject).map((line) => ({
      ...line,
      before: withNames(line.before, names),
      after: withNames(line.after, names),
    }));
  });
}

/** The changes that undo all of these edits (oldest first). Records of proof that were signed since then stay. */
export function changesBack(later: readonly Edit[], maps: ShowMaps): ProposedChange[] {
  const first = new Map<string, { kind: Kind; id: string; before: AnyRecord | null }>();
  for (const { changes } of later)
    for (const { kind, id, before } of changes) {
      const key = `${kind} ${id}`;
      if (!first.has(key)) first.set(key, { kind, id, before });
    }
  return [...first.values()].flatMap(({ kind, id, before }): ProposedChange[] => {
    const now = maps[kind].get(id) ?? null;
    if (sameContent(now, before) || (now && kind === 'proof')) return [];
    return [{ kind, id, rev: now?.rev ?? null, after: before }];
  });
}
