/**
 * Matching by eye: lamps light one by one, and a person taps which it was. What is lit is either a lamp that answers, or
 * a stretch of slots; every answer leads to the next, and the last can be taken back.
 */
import { flag, list, oneOf, shape, text, whole, type Of } from '../../base/field';

/** One thing to be lit. `of`: the lamp that the plan has on a stretch; empty for none */
const itemFields = {
  uid: text('UID', 13),
  universe: whole('Universe', 0, 63_999),
  first: whole('First', 0, 512),
  last: whole('Last', 0, 512),
  of: text('Lamp', 80),
  /** Lamps that are known to listen to it, or to what lies directly behind it */
  among: list('Among', text('Lamp', 80), 512),
};
export interface EyeItem extends Of<typeof itemFields> {}
const item = shape<typeof itemFields, EyeItem>('Item', itemFields);

export const EYE_ANSWERS = ['tapped', 'skipped', 'not seen'] as const;
export type EyeAnswer = (typeof EYE_ANSWERS)[number];

/** How setting a lamp came out */
const SET_STATES = ['done', 'refused', 'no answer', 'not known'] as const;

const stepFields = {
  item,
  answer: oneOf('Answer', EYE_ANSWERS),
  lampIds: list('Lamps', text('Lamp', 80), 512),
  /** Whether the lamp was set and read back; empty while that is under way, or for a stretch */
  set: oneOf('Set', ['', ...SET_STATES]),
  /** The same in a sentence */
  outcome: text('Outcome', 400),
  /** Nobody gave it: it follows of those before. */
  followed: flag('Followed'),
};
export interface EyeStep extends Of<typeof stepFields> {}

const sessionFields = {
  by: text('By', 80),
  how: oneOf('How', ['asked', 'stretches']),
  lampIds: list('Lamps', text('Lamp', 80), 20_000),
  /** What lies between the planned stretches is looked through as well by now. */
  between: flag('Between'),
  /** What was to be lit at the begin, and what is still */
  first: list<EyeItem>('First', item, 20_000),
  waiting: list<EyeItem>('Waiting', item, 20_000),
  steps: list<EyeStep>('Steps', shape<typeof stepFields, EyeStep>('Step', stepFields), 40_000),
};
/** All that has to outlive a restart. */
export interface EyeSession extends Of<typeof sessionFields> {}
export const eyeSession = shape<typeof sessionFields, EyeSession>('EyeSession', sessionFields);

export const itemOfUid = (uid: string): EyeItem => ({ uid, universe: 0, first: 0, last: 0, of: '', among: [] });

/** By which an answer says what it is about: somebody else may have answered meanwhile. */
export const keyOfItem = ({ uid, universe, first, last }: EyeItem): string => uid || `${universe}/${first}-${last}`;

/** What is lit now; undefined at the end. */
export const lit = ({ waiting }: EyeSession): EyeItem | undefined => waiting[0];

/** Slots that a lamp takes, at least 1 */
export type SlotsOfLamp = (lampId: string) => number;

/**
 * An answer to what is lit. A stretch that is wider than the lamps that lit on it is halved until it tells where each of
 * them is; what follows of itself is not asked.
 */
export function answered(
  session: EyeSession,
  answer: EyeAnswer,
  lampIds: readonly string[],
  slots: SlotsOfLamp,
): EyeSession {
  const [now, ...rest] = session.waiting;
  if (!now) return session;
  const step: EyeStep = { item: now, answer, lampIds, set: '', outcome: '', followed: false };
  let next: EyeSession = { ...session, waiting: rest, steps: [...session.steps, step] };
  if (now.uid !== '') return next;
  if (lampIds.length > 0) next = { ...next, waiting: [...halvesOf(now, lampIds, slots), ...next.waiting] };
  return followed(next, now, lampIds, slots);
}

/** What one half says of the other. */
function followed(session: EyeSession, half: EyeItem, lampIds: readonly string[], slots: SlotsOfLamp): EyeSession {
  const others = half.among.filter((id) => !lampIds.includes(id));
  const at = session.waiting.findIndex(({ universe, first }) => universe === half.universe && first === half.last + 1);
  const other = session.waiting[at];
  if (half.among.length === 0 || !other || other.among.length === 0) return session;
  const without = [...session.waiting.slice(0, at), ...session.waiting.slice(at + 1)];
  if (others.length === 0) return { ...session, waiting: without };
  const halves = halvesOf(other, others, slots);
  if (halves.length > 0)
    return { ...session, waiting: [...session.waiting.slice(0, at), ...halves, ...session.waiting.slice(at + 1)] };
  const step: EyeStep = { item: other, answer: 'tapped', lampIds: others, set: '', outcome: '', followed: true };
  return { ...session, waiting: without, steps: [...session.steps, step] };
}

/** Two halves if that tells more: none for a stretch that is no wider than the one lamp on it, or has one slot. */
function halvesOf({ universe, first, last, of }: EyeItem, lampIds: readonly string[], slots: SlotsOfLamp): EyeItem[] {
  const width = last - first + 1;
  const wide = Math.min(...lampIds.map(slots));
  if (width <= 1 || (lampIds.length === 1 && (of !== '' || width <= wide))) return [];
  const middle = first + Math.floor(width / 2) - 1;
  const plain = { uid: '', universe, of: '', among: lampIds };
  return [
    { ...plain, first, last: middle },
    { ...plain, first: middle + 1, last },
  ];
}

/** The last answer taken back, with all that followed of it: those before are given again, from the begin. */
export function takenBack(session: EyeSession, slots: SlotsOfLamp, goOn: (one: EyeSession) => EyeSession): EyeSession {
  const given = session.steps.filter(({ followed: by }) => !by).slice(0, -1);
  const begun: EyeSession = { ...session, waiting: session.first, steps: [], between: false };
  const again = given.reduce((one, { answer, lampIds }) => goOn(answered(one, answer, lampIds, slots)), begun);
  return { ...again, steps: again.steps.map((step, i) => ({ ...step, ...outcomeOf(session.steps[i]!) })) };
}

const outcomeOf = ({ set, outcome }: EyeStep): Pick<EyeStep, 'set' | 'outcome'> => ({ set, outcome });

/** What came of setting the lamp that was lit as `uid`, at its last answer. */
export function withOutcome(session: EyeSession, uid: string, came: Pick<EyeStep, 'set' | 'outcome'>): EyeSession {
  const last = session.steps.findLastIndex(({ item: its }) => its.uid === uid);
  return { ...session, steps: session.steps.map((step, i) => (i === last ? { ...step, ...came } : step)) };
}

/** Lamps that were tapped, and at what. One that was tapped again is where it was tapped last. */
export function tapped({ steps }: EyeSession): Map<string, EyeItem> {
  const found = new Map<string, EyeItem>();
  // Of several on one stretch, the halves tell which is where.
  for (const { item: where, answer, lampIds } of steps)
    if (answer === 'tapped') for (const id of lampIds) found.set(id, where);
  return found;
}

/** By number: the one after the last that was tapped, in the step of the last two. */
export function likelyNext(
  lamps: readonly { readonly id: string; readonly number: number }[],
  session: EyeSession,
): string | undefined {
  const done = tapped(session);
  const item = lit(session);
  if (item && item.of !== '' && !done.has(item.of)) return item.of;
  const byId = new Map(lamps.map((one) => [one.id, one]));
  const taps = session.steps.flatMap(({ lampIds }) => (lampIds.length === 1 ? (byId.get(lampIds[0]!) ?? []) : []));
  const open = lamps.filter(({ id }) => !done.has(id)).sort((a, b) => a.number - b.number);
  const now = taps[taps.length - 1];
  if (!now) return open[0]?.id;
  const before = taps[taps.length - 2];
  const step = before && before.number !== now.number ? now.number - before.number : 1;
  const expected = open.find(({ number }) => number === now.number + step);
  return (expected ?? open.find(({ number }) => number > now.number) ?? open[0])?.id;
}
