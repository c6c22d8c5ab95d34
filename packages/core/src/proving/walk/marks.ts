/** What became of each item of a walk: by the last mark of each person, and by what changed since. */
import { seenAs, type OnPath } from '../../truth/known';
import type { Mark, MarkFact } from '../../show/records';
import { itemKey } from './items';

export const WALK_STATES = ['proved', 'failed', 'skipped', 'untried', 'disputed'] as const;
export type WalkState = (typeof WALK_STATES)[number];

/** Later on the device’s clock; of one moment, the one that came later. */
export const isLater = (a: Mark, b: Mark): boolean => a.at > b.at || (a.at === b.at && a.rev >= b.rev);

/** The last mark of each person, by the item’s key; the newest first. */
export function lastMarks(marks: readonly Mark[]): ReadonlyMap<string, readonly Mark[]> {
  const byKey = new Map<string, Map<string, Mark>>();
  for (const mark of marks) {
    const key = itemKey(mark.lampId, mark.channel);
    const by = byKey.get(key) ?? new Map<string, Mark>();
    byKey.set(key, by);
    const before = by.get(mark.by);
    if (!before || isLater(mark, before)) by.set(mark.by, mark);
  }
  return new Map(
    [...byKey].map(([key, by]) => [key, [...by.values()].sort((a, b) => (isLater(a, b) ? -1 : 1))] as const),
  );
}

/** Whoever only skipped says nothing against those who looked. */
export function stateOf(marks: readonly Mark[] | undefined): WalkState {
  if (!marks || marks.length === 0) return 'untried';
  const looked = marks.filter(({ result }) => result !== 'skipped');
  if (looked.length === 0) return 'skipped';
  return new Set(looked.map(({ result }) => result)).size > 1 ? 'disputed' : looked[0]!.result;
}

/** The mark that an item stands by: the newest of those who looked. */
export const standsBy = (marks: readonly Mark[]): Mark => marks.find(({ result }) => result !== 'skipped') ?? marks[0]!;

/** What changed on the path since a mark: by edits after the one that its device knew, and by what devices say now. */
export function changedSinceMark(mark: Mark, path: readonly OnPath[], now: readonly MarkFact[]): string[] {
  const { changed } = seenAs({ ...mark, rev: mark.knew, answer: 'yes' }, path);
  const says = new Map(now.map((fact) => [fact.about, fact.says]));
  const otherwise = mark.stood.flatMap(({ about, says: before }) => {
    const after = says.get(about);
    return after === undefined || after === before ? [] : [`${about}: ${before} then, ${after} now`];
  });
  return [...changed, ...otherwise];
}
