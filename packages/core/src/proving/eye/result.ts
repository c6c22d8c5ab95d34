/** What came of matching by eye: how each lamp stands, and the plan with those that were seen elsewhere. */
import { changed, countOf, type Plan } from '../../show/edit';
import { integer, listOf, orNull, plain, report, word, words, type ReportOf } from '../../base/field';
import { lampName, lampsOf, type Rig } from '../../rig/patch';
import type { Lamp } from '../../show/records';
import { ok, refuse, type Result } from '../../base/result';
import { eyeSession, tapped, type EyeItem, type EyeSession, type EyeStep } from './session';

export const eyeLamp = report('EyeLamp', {
  id: words(),
  state: word(
    ['waiting', 'being set', 'done', 'not set', 'elsewhere', 'not found'],
    'Done: set and read back, or seen to light where it is planned. Not set: matched, and it refused or did not answer.',
  ),
  says: words('Where it was seen, or what came of setting it.'),
});

export interface EyeLamp extends ReportOf<typeof eyeLamp.fields> {}

export const eyeReply = report('Eye', {
  running: orNull(plain<EyeSession>(eyeSession.schema)),
  /** What is lit, in words */
  now: words('What is lit now, in words; empty at the end.'),
  likely: words('Id of the lamp that it probably is; empty if nobody can say.'),
  left: integer('How many are still to be lit.'),
  lamps: listOf(eyeLamp, 'Those that the session is about.'),
  lighting: word(
    ['on', 'paused', 'safe'],
    'Paused: no phone looks on. Safe: Taxiarch was made safe; it lights nothing.',
  ),
  trouble: words('Why what is to be lit is not; empty if it is.'),
});
export interface EyeReply extends ReportOf<typeof eyeReply.fields> {}

/** A stretch as people write it: `1/420`, `1/201–205`. */
export const stretchText = ({ universe, first, last }: EyeItem): string =>
  first === last ? `${universe}/${first}` : `${universe}/${first}–${last}`;

const ofSetting = ({ set, outcome }: EyeStep): Pick<EyeLamp, 'state' | 'says'> => {
  if (set === '') return { state: 'being set', says: 'It is being set.' };
  return { state: set === 'done' ? 'done' : 'not set', says: outcome };
};

/** How one lamp of a session stands, and no more than is known of it. */
export function standOf(session: EyeSession, { id, universe, channel }: Lamp): Pick<EyeLamp, 'state' | 'says'> {
  const step = session.steps.findLast(({ answer, lampIds }) => answer === 'tapped' && lampIds.includes(id));
  if (!step) {
    const ended = session.waiting.length === 0 && session.steps.length > 0;
    return ended ? { state: 'not found', says: 'Nobody saw it light.' } : { state: 'waiting', says: '' };
  }
  const { item } = step;
  if (item.uid !== '') return ofSetting(step);
  if (item.of === id) return { state: 'done', says: 'Seen to light by its planned channels.' };
  const where = item.first === item.last ? 'by' : 'by some of';
  return { state: 'elsewhere', says: `It lights ${where} ${stretchText(item)}; planned is ${universe}/${channel}.` };
}

/** Where lamps of one slot were seen, taken into the plan; of wider ones nobody knows on which slot they begin. */
export function takeSeen(rig: Rig, session: EyeSession): Result<Plan> {
  const found = tapped(session);
  const moves = lampsOf(rig, [...found.keys()]).flatMap(({ lamp }) => {
    const { uid, of, universe, first, last } = found.get(lamp.id)!;
    const exact = uid === '' && of === '' && first === last;
    return exact ? [[lamp, { ...lamp, universe, channel: first }] as const] : [];
  });
  if (moves.length === 0) return refuse('nothing', 'Of nobody who lights elsewhere is the first slot known.');
  return ok({
    sentence: `Took ${countOf(moves.length, 'lamp')} into the plan where they were seen`,
    changes: moves.map(([before, after]) => changed('lamp', before, after)),
    lines: moves.map(([before, after]) => ({
      subject: lampName(before),
      before: `${before.universe}/${before.channel}`,
      after: `${after.universe}/${after.channel}`,
    })),
  });
}
