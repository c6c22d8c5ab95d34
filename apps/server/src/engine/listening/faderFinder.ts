/** Finds the fader that a person moves on another desk: the slot that moves while it stood still before. */
import type { FoundFader } from '../../bridge/engineMessages';
import { SLOTS } from '@taxiarch/core/base/address';
import { Sacn } from '@taxiarch/core/protocol/sacn';
import type { LiveUniverse } from './universe';

/** What moves by itself is learnt for this long, before anybody is asked to move anything. */
export const QUIET_MS = 1500;
/** A person has this long to move the fader. */
export const WAIT_MS = 20_000;
/** Steps that a level must go before it counts as moved by a hand. */
const FAR = 24;

interface Known {
  /** Levels at the end of the quiet time */
  readonly levels: Uint8Array;
  readonly moves: Uint8Array;
}

export class FaderFinder {
  private readonly known = new Map<number, Known>();

  constructor(private readonly began: number) {}

  /** Looks at all universes; the fader once it is found, and null when the time is over. */
  look(universes: readonly LiveUniverse[], now: number): FoundFader | null | undefined {
    if (now - this.began > QUIET_MS + WAIT_MS) return null;
    const quiet = now - this.began <= QUIET_MS;
    let found: FoundFader | undefined;
    let farthest = FAR - 1;
    for (const universe of universes) {
      const incoming = universe.incoming('', now, Sacn.E131_NETWORK_DATA_LOSS_TIMEOUT_MS);
      if (!incoming) continue;
      const { values } = incoming;
      const there = this.known.get(universe.key);
      if (!there) {
        this.known.set(universe.key, { levels: values.slice(), moves: new Uint8Array(SLOTS) });
        continue;
      }
      for (let slot = 0; slot < SLOTS; slot += 1) {
        const way = Math.abs(values[slot]! - there.levels[slot]!);
        if (way === 0) continue;
        if (quiet) {
          there.moves[slot] = 1;
          there.levels[slot] = values[slot]!;
        } else if (there.moves[slot] === 0 && way > farthest) {
          farthest = way;
          found = { key: universe.key, slot, level: values[slot]! };
        }
      }
    }
    return found;
  }
}
