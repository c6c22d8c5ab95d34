/** Levels that a match by eye wants on the wire now, within its choice and nothing else. */
import { wireKey } from '@taxiarch/core/base/address';
import { freeStretches, levelsOfLook, levelsOfStretch, lit, tapped, type EyeSession } from '@taxiarch/core/proving/eye';
import type { Patch } from '@taxiarch/core/rig/patch';
import type { Universe } from '@taxiarch/core/show/records';
import type { SeenLamp } from '@taxiarch/core/truth/roll';
import type { Candidates } from './candidates';

export class WantedLevels {
  /** By wire key and slot (0–511) */
  readonly levels = new Map<number, Map<number, number>>();
  /** Show universe of each key */
  readonly shows = new Map<number, number>();

  set({ number, protocol, wire }: Universe, slot: number, level: number): void {
    const key = wireKey({ protocol, number: wire });
    const there = this.levels.get(key) ?? new Map<number, number>();
    this.levels.set(key, there.set(slot, level));
    this.shows.set(key, number);
  }
}

/** Of lamps that answer each shows its state by its own slots, where nobody else listens to them. */
export function wantedOfLamps(
  session: EyeSession,
  candidates: Candidates,
  known: (uid: string) => SeenLamp | undefined,
): WantedLevels {
  const wanted = new WantedLevels();
  const chosen = new Set(session.lampIds);
  const now = lit(session)?.uid;
  // One that refused, or did not answer, is not done.
  const done = new Set(
    session.steps
      .filter(({ answer, set }) => answer === 'tapped' && (set === 'done' || set === ''))
      .map(({ item }) => item.uid),
  );
  for (const uid of new Set([...session.waiting.map((one) => one.uid), ...done])) {
    const seen = known(uid);
    const universe = seen && candidates.universe(seen);
    if (!seen || !universe || !candidates.isAlone(seen, chosen)) continue;
    const look = uid === now ? 'now' : done.has(uid) ? 'done' : 'waiting';
    for (const [slot, level] of candidates.levels(seen, look)) wanted.set(universe, slot, level);
  }
  return wanted;
}

/** Without asking: what is lit now, those glowing that were seen where they are planned, all others dark. */
export function wantedOfStretches(session: EyeSession, patch: Patch, universes: readonly Universe[]): WantedLevels {
  const wanted = new WantedLevels();
  const byNumber = new Map(universes.map((one) => [one.number, one]));
  const found = tapped(session);
  const set = (number: number, channel: number, level: number) => {
    const universe = byNumber.get(number);
    if (universe && channel >= 1 && channel <= 512) wanted.set(universe, channel - 1, level);
  };
  const lamps = session.lampIds.flatMap((id) => patch.lamp(id) ?? []);
  for (const { lamp, mode } of lamps) {
    const glows = found.get(lamp.id)?.of === lamp.id;
    for (const [offset, level] of levelsOfLook(mode, 'done'))
      set(lamp.universe, lamp.channel + offset, glows ? level : 0);
  }
  // What lies between is dark but for what is lit, so that nothing else lights there.
  if (session.between)
    for (const { universe, first, last } of freeStretches(patch, lamps))
      for (let channel = first; channel <= last; channel += 1) set(universe, channel, 0);
  const item = lit(session);
  if (item) for (const [channel, level] of levelsOfStretch(item, patch)) set(item.universe, channel, level);
  return wanted;
}
