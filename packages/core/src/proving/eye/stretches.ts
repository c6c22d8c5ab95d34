/** Stretches of universes to be lit where lamps cannot answer: first those that the plan has, then what lies between. */
import { SLOTS } from '../../base/address';
import { channelMaximum, splitValue } from '../../rig/fixture';
import { lastChannel, slotsOf, type Patch, type PatchedLamp } from '../../rig/patch';
import type { EyeItem } from './session';

/** One for each lamp, where the plan has it, by universe and channel. */
export const plannedStretches = (lamps: readonly PatchedLamp[]): EyeItem[] =>
  lamps
    .flatMap(({ lamp, spans }) =>
      spans
        .filter(({ block }) => block === 1)
        .map((span): EyeItem => ({
          uid: '',
          universe: span.universe,
          first: span.channel,
          last: Math.min(SLOTS, lastChannel(span)),
          of: lamp.id,
          among: [],
        })),
    )
    .sort((a, b) => a.universe - b.universe || a.first - b.first);

/** What no lamp of the plan has, in the universes of lamps that were not found: each free run whole, to be halved. */
export function freeStretches(patch: Patch, missing: readonly PatchedLamp[]): EyeItem[] {
  const found: EyeItem[] = [];
  for (const universe of [...new Set(missing.map(({ lamp }) => lamp.universe))].sort((a, b) => a - b)) {
    const taken = new Uint8Array(SLOTS + 2);
    for (const span of patch.universe(universe)) taken.fill(1, span.channel, lastChannel(span) + 1);
    for (let first = 1; first <= SLOTS; first += 1) {
      if (taken[first]) continue;
      let last = first;
      while (last < SLOTS && !taken[last + 1]) last += 1;
      found.push({ uid: '', universe, first, last, of: '', among: [] });
      first = last;
    }
  }
  return found;
}

/** Slots that move a lamp rather than light it are left alone on a stretch of which nobody knows what is there. */
export function levelsOfStretch(
  { universe, first, last, of }: EyeItem,
  patch: Patch,
): [channel: number, level: number][] {
  const patched = of === '' ? undefined : patch.lamp(of);
  if (!patched) return Array.from({ length: last - first + 1 }, (_, i) => [first + i, 255]);
  const levels = new Map<number, number>();
  for (const channel of patched.mode.channels) {
    const value = Math.min(channelMaximum(channel), channel.highlight);
    slotsOf(patched, channel).forEach((slot, byte) => {
      if (slot.universe === universe) levels.set(slot.channel, splitValue(channel, value)[byte]!);
    });
  }
  return [...levels];
}
