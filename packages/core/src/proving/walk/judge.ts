/** A walk as it stands: each item with the word for it, who said so, and what changed since. */
import { Paths } from '../../truth/diagnose';
import { integer, listOf, report, word, words, type ReportOf } from '../../base/field';
import { MARK_REASONS, MARK_RESULTS, type Mark, type ShowRecords, type Walk } from '../../show/records';
import type { Patch } from '../../rig/patch';
import { itemKey, walkItems } from './items';
import { changedSinceMark, isLater, lastMarks, standsBy, stateOf, WALK_STATES, type WalkState } from './marks';
import type { StoodNow } from './stood';

const said = report('', {
  by: words(),
  result: word(MARK_RESULTS),
  why: word(MARK_REASONS),
  note: words(),
  timeCode: words('Time code that was heard then; empty if none ran.'),
  photo: words(),
  at: words('ISO 8601.'),
});

export const walkRow = report('WalkRow', {
  key: words(),
  lampId: words(),
  channel: integer('Counted in the lamp’s mode, from 1; 0 for the lamp as a whole.'),
  state: word(WALK_STATES),
  said: listOf(said, 'The last word of each person, the newest first.'),
  changed: listOf(words(), 'What changed on its path since; empty while the mark still counts.'),
});
export interface WalkRow extends ReportOf<typeof walkRow.fields> {}

export const walkReply = report('WalkReply', {
  sentence: words(),
  rows: listOf<WalkRow>(walkRow, 'In the order of the walk.'),
});
export interface WalkReply extends ReportOf<typeof walkReply.fields> {}

const sayOf = ({ by, result, why, note, timeCode, photo, at }: Mark): WalkRow['said'][number] => ({
  ...{ by, result, why, note, timeCode, photo, at },
});

/** Marks by the walk in which they were made */
export function marksOf({ mark }: Pick<ShowRecords, 'mark'>, walkId: string): Mark[] {
  return mark.filter((one) => one.walkId === walkId);
}

export function judgedWalk(walk: Walk, records: ShowRecords, patch: Patch, now: StoodNow): WalkRow[] {
  const last = lastMarks(marksOf(records, walk.id));
  const paths = new Paths(records, patch);
  return walkItems(walk, patch).map(({ key, lampId, channel }): WalkRow => {
    const marks = last.get(itemKey(lampId, channel)) ?? [];
    const state = stateOf(marks);
    const patched = patch.lamp(lampId)!;
    const counts = state === 'proved' || state === 'failed' || state === 'disputed';
    const changed = counts
      ? changedSinceMark(standsBy(marks), paths.of({ kind: 'lamp', id: lampId, part: '' }), now.of(patched))
      : [];
    return { key, lampId, channel, state, said: marks.map(sayOf), changed };
  });
}

/** “310 of 420 lamps proved, 4 of them before a change. 3 failed, 1 disputed, 2 skipped, 104 untried.” */
export function walkSentence(rows: readonly WalkRow[], unit: Walk['unit']): string {
  const count = (state: WalkState) => rows.filter((one) => one.state === state).length;
  const old = rows.filter(({ state, changed }) => state === 'proved' && changed.length > 0).length;
  const what = unit === 'lamp' ? 'lamp' : 'channel';
  const rest = (['failed', 'disputed', 'skipped', 'untried'] as const).flatMap((state) =>
    count(state) > 0 ? [`${count(state)} ${state}`] : [],
  );
  const before = old > 0 ? `, ${old} of them before a change` : '';
  const more = rest.length > 0 ? ` ${rest.join(', ')}.` : '';
  return `${count('proved')} of ${rows.length} ${what}${rows.length === 1 ? '' : 's'} proved${before}.${more}`;
}

export function walkReport(walk: Walk, records: ShowRecords, patch: Patch, now: StoodNow): WalkReply {
  const rows = judgedWalk(walk, records, patch, now);
  return { sentence: walkSentence(rows, walk.unit), rows };
}

/** Of each lamp the marks of the walk in which somebody looked at it last: what was said in an earlier one is no dispute. */
function lastWalkOf(marks: readonly Mark[]): Mark[] {
  const newest = new Map<string, Mark>();
  for (const mark of marks) {
    const before = newest.get(mark.lampId);
    if (mark.result !== 'skipped' && (!before || isLater(mark, before))) newest.set(mark.lampId, mark);
  }
  return marks.filter(({ lampId, walkId }) => (newest.get(lampId)?.walkId ?? walkId) === walkId);
}

/** Lamps by the last walk in which somebody looked at them: those that failed, and those proved before something changed. */
export function everyLamp(
  records: ShowRecords,
  patch: Patch,
  now: StoodNow,
): ReadonlyMap<string, { readonly state: WalkState; readonly mark: Mark; readonly changed: readonly string[] }> {
  const whole = records.mark.filter(({ channel }) => channel === 0);
  const paths = new Paths(records, patch);
  return new Map(
    [...lastMarks(lastWalkOf(whole))].flatMap(([lampId, marks]) => {
      const patched = patch.lamp(lampId);
      if (!patched) return [];
      const mark = standsBy(marks);
      const changed = changedSinceMark(mark, paths.of({ kind: 'lamp', id: lampId, part: '' }), now.of(patched));
      return [[lampId, { state: stateOf(marks), mark, changed }] as const];
    }),
  );
}
