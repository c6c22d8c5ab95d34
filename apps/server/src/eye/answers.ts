/** What an answer by eye means: whether it can be right, what is lit next, and how the lamp is set. */
import { countOf } from '@taxiarch/core/show/edit';
import {
  freeStretches,
  likelyNext,
  lit,
  stretchText,
  tapped,
  type EyeItem,
  type EyeSession,
  type EyeStep,
} from '@taxiarch/core/proving/eye';
import { Patch, lampName } from '@taxiarch/core/rig/patch';
import type { FixtureType, Lamp } from '@taxiarch/core/show/records';
import { couldBe, knownBy, modeWanted, rollOf, sameType, type SeenLamp } from '@taxiarch/core/truth/roll';
import type { ShowDoor } from '../bridge/showDoor';
import { ProblemError } from '../problemError';
import type { RollCall } from '../roll/rollCall';
import type { LampSetter } from '../roll/setter';

/** What of the show a session needs; read at its begin, and again when it goes on. */
export interface About {
  readonly lamps: ReadonlyMap<string, Lamp>;
  readonly patch: Patch;
  readonly types: readonly FixtureType[];
  /** Which lamp each that answers probably is, by its UID */
  readonly guesses: ReadonlyMap<string, Guess>;
}

export interface Guess {
  readonly lampId: string;
  readonly sure: boolean;
}

/** Refuses a tap that cannot be right, or asks it back. */
export function refuseTap(
  session: EyeSession,
  { uid, among }: EyeItem,
  lamps: readonly Lamp[],
  sure: boolean,
  { patch }: About,
  known: (uid: string) => SeenLamp,
): void {
  if (lamps.length === 0) throw new ProblemError('not-here', 'This lamp is not in the show.');
  const chosen = new Set(session.lampIds);
  const outside = lamps.find(({ id }) => !chosen.has(id));
  if (outside) throw new ProblemError('not-possible', `${lampName(outside)} is not among the lamps that were chosen.`);
  if (uid !== '' && lamps.length > 1)
    throw new ProblemError('not-understood', 'One lamp shows itself at a time: tap one.');
  if (sure) return;
  const before = tapped(session);
  // A half of a stretch on which it was tapped is no other place.
  const again = lamps.find(({ id }) => before.has(id) && !among.includes(id));
  if (again) throw new ProblemError('not-possible', `${lampName(again)} was tapped before. Is it really this one?`);
  const patched = patch.lamp(lamps[0]!.id);
  if (uid === '' || !patched) return;
  const seen = known(uid);
  if (!sameType(patched, seen) && !couldBe(patched, seen))
    throw new ProblemError(
      'not-possible',
      `What lit says that it is a ${seen.maker} ${seen.model} with ${countOf(seen.slots, 'slot')}; ${lampName(patched.lamp)} is a ${patched.type.maker} ${patched.type.name}. Is it really this one?`,
    );
}

/** With all planned stretches lit and some lamps not found, what lies between is lit as well. */
export function goOn(session: EyeSession, { patch }: About): EyeSession {
  if (session.how === 'asked' || session.waiting.length > 0 || session.between) return session;
  const found = tapped(session);
  const missing = session.lampIds.filter((id) => !found.has(id)).flatMap((id) => patch.lamp(id) ?? []);
  return { ...session, between: true, waiting: freeStretches(patch, missing) };
}

interface Doors {
  readonly show: Pick<ShowDoor, 'lamps' | 'propose'>;
  readonly roll: Pick<RollCall, 'lamp'>;
  readonly setter: LampSetter;
}

/** Sets the lamp that answers as the plan has the one it is, and writes down who it is. */
export async function setAndWrite(
  { show, roll, setter }: Doors,
  uid: string,
  lampId: string,
  author: string,
): Promise<Pick<EyeStep, 'set' | 'outcome'>> {
  const { lamp, type } = await show.lamps([lampId], uid);
  const patched = new Patch(lamp, type).lamp(lampId);
  if (!patched) return { set: 'not known', outcome: 'This lamp is not in the show any more.' };
  const seen = roll.lamp(uid);
  const mode = modeWanted(patched, seen);
  const wish = { uid, address: patched.lamp.channel, ...(mode !== undefined && mode !== seen.mode && { mode }) };
  const { state, says } = await setter.setOne(wish, false);
  const changes = knownBy(lamp, lampId, uid);
  const sentence = `Matched ${lampName(patched.lamp)} by eye`;
  const refused = changes.length > 0 ? await show.propose({ author, sentence, changes }) : undefined;
  if (refused !== undefined) return { set: 'not known', outcome: `${says} The show did not take its UID: ${refused}` };
  if (state === 'done' && mode === undefined)
    return { set: 'refused', outcome: 'Its address is set; none of its modes is the planned one.' };
  return { set: state, outcome: says };
}

export const slotsIn =
  ({ patch }: About) =>
  (lampId: string): number =>
    patch.lamp(lampId)?.footprint ?? 1;

/** Which lamp each probably is, by what the roll call heard. */
export function guessesOf(
  plan: Parameters<typeof rollOf>[0],
  patch: Patch,
  now: Parameters<typeof rollOf>[2],
): ReadonlyMap<string, Guess> {
  const { rows } = rollOf(plan, patch, now);
  return new Map(
    rows
      .filter(({ uid, lampId, confidence }) => uid !== '' && lampId !== '' && confidence !== '')
      .map(({ uid, lampId, confidence }) => [uid, { lampId, sure: confidence !== 'likely' }]),
  );
}

/** Which lamp it probably is that shows itself; empty if nobody can say. */
export function likelyOf(session: EyeSession, lamps: readonly Lamp[], { guesses }: About): string {
  const guess = guesses.get(lit(session)?.uid ?? '')?.lampId;
  const open = guess !== undefined && session.lampIds.includes(guess) && !tapped(session).has(guess);
  return (open ? guess : likelyNext(lamps, session)) ?? '';
}

/** What shows itself, in words. */
export function wordsOf(session: EyeSession, known: (uid: string) => SeenLamp | undefined): string {
  const item = lit(session);
  if (!item) return '';
  if (item.uid === '') return stretchText(item);
  const seen = known(item.uid);
  return seen ? `${seen.maker} ${seen.model}, ${item.uid}` : item.uid;
}
