/** What lamps said of themselves that stands against opening; by the last roll call, however long ago it was. */
import { spell, type HeightReport, type Sureness, type Trouble } from '../known';
import type { Patch } from '../../rig/patch';
import type { RollReply, RollRow } from '../roll';
import { byHand, subject } from './cause';

/** Numbers told by name */
const MOST_NAMED = 4;

const numbersOf = (rows: readonly RollRow[]): string => {
  const named = rows.slice(0, MOST_NAMED).map(({ number }) => number);
  return rows.length > MOST_NAMED ? `${named.join(', ')} and ${rows.length - MOST_NAMED} more` : named.join(', ');
};

/** A match that rests on likeness makes what it says likely; so does that one is missing whom nobody has met. */
const sureOf = (rows: readonly RollRow[]): Sureness =>
  rows.every(({ state, confidence, uid }) => (state === 'missing' ? uid !== '' : confidence !== 'likely'))
    ? 'certain'
    : 'likely';

function trouble(rows: readonly RollRow[], says: string, repair: string, patch: Patch): Trouble[] {
  const [first] = rows;
  if (!first) return [];
  const about = subject('lamp', first.lampId);
  const universes = new Set(rows.flatMap(({ lampId }) => patch.lamp(lampId)?.lamp.universe ?? []));
  const { says: mend, act } = byHand(repair);
  return [
    {
      ...{ about, ask: about, cause: 'lamps', says, sure: sureOf(rows), lamps: rows.length },
      ...{ universes: [...universes].sort((a, b) => a - b), repair: mend, act },
    },
  ];
}

/** `at`: now, Unix ms. */
export function lampTroubles({ rows, progress }: RollReply, patch: Patch, at: number): Trouble[] {
  const of = (state: RollRow['state']) => rows.filter((row) => row.lampId !== '' && row.state === state);
  const [differ, missing] = [of('differs'), of('missing')];
  const ago = progress.ended > 0 ? `, said ${spell(Math.max(0, at - progress.ended))} ago` : '';
  const are = (some: readonly RollRow[]) => (some.length === 1 ? 'lamp answers' : 'lamps answer');
  return [
    ...trouble(
      differ,
      `${differ.length} ${are(differ)} otherwise than planned (${numbersOf(differ)})${ago}.`,
      'Mend them at the lamps, or take them into the plan, from the roll call.',
      patch,
    ),
    ...trouble(
      missing,
      `${missing.length} ${are(missing)} nothing where the plan has ${missing.length === 1 ? 'it' : 'them'} (${numbersOf(missing)})${ago}.`,
      'Look at their power and cables; call the roll again.',
      patch,
    ),
  ];
}

/** How many of the lamps that were asked answered as planned. */
export function lampsAsked(roll: RollReply | undefined): HeightReport {
  const asked = roll?.rows.filter(({ state, lampId }) => lampId !== '' && ASKED.has(state)) ?? [];
  return { of: asked.length, known: asked.filter(({ state }) => state === 'as planned').length, old: 0 };
}
const ASKED: ReadonlySet<RollRow['state']> = new Set(['as planned', 'differs', 'missing', 'no answer']);
