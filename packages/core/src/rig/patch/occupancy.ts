/** Which slots of each universe are used, and where there is room. */
import { isAddressed, NO_ADDRESS, SHOW_UNIVERSE_LAST, type SlotAddress, SLOTS } from '../../base/address';
import type { Lamp } from '../../show/records';
import { ok, refuse, type Result } from '../../base/result';
import { addressesOf, type Patch } from './patch';
import { countOf } from '../../show/edit';

export interface FreeRun {
  readonly channel: number;
  readonly length: number;
}

export class Occupancy {
  private readonly used = new Map<number, Uint8Array>();

  /** What `patch` uses, without the lamps and runs named in `except`. */
  constructor(patch: Patch, except: ReadonlySet<string> = new Set()) {
    for (const universe of patch.universes())
      for (const span of patch.universe(universe)) if (!except.has(span.patched.lamp.id)) this.claim(span, span.length);
  }

  /** Marks slots as used; those past 512 are left out. */
  claim({ universe, channel }: SlotAddress, length: number): void {
    let slots = this.used.get(universe);
    if (!slots) {
      slots = new Uint8Array(SLOTS);
      this.used.set(universe, slots);
    }
    slots.fill(1, channel - 1, channel - 1 + length);
  }

  /** Unused runs of a universe, in order. */
  freeRuns(universe: number): FreeRun[] {
    const slots = this.used.get(universe);
    if (!slots) return [{ channel: 1, length: SLOTS }];
    const runs: FreeRun[] = [];
    let begun = -1;
    for (let i = 0; i <= SLOTS; i += 1) {
      const free = i < SLOTS && slots[i] === 0;
      if (free && begun < 0) begun = i;
      if (!free && begun >= 0) {
        runs.push({ channel: begun + 1, length: i - begun });
        begun = -1;
      }
    }
    return runs;
  }

  /** The last used slot of a universe; 0 if none is. */
  lastUsed(universe: number): number {
    return (this.used.get(universe)?.lastIndexOf(1) ?? -1) + 1;
  }

  /** The first place from `from` on where `length` slots fit together in one universe. */
  nextFit(length: number, from: SlotAddress): Result<SlotAddress> {
    if (length > SLOTS)
      return refuse('out-of-range', `${length} channels do not fit in one universe: it has ${SLOTS}.`);
    for (let { universe } = from; universe <= SHOW_UNIVERSE_LAST; universe += 1) {
      const start = universe === from.universe ? from.channel : 1;
      const slots = this.used.get(universe);
      if (!slots) {
        if (start + length - 1 <= SLOTS) return ok({ universe, channel: start });
        continue;
      }
      let free = 0;
      for (let i = start - 1; i < SLOTS; i += 1) {
        free = slots[i] === 0 ? free + 1 : 0;
        if (free === length) return ok({ universe, channel: i - length + 2 });
      }
    }
    return refuse(
      'not-found',
      `There is no room for ${countOf(length, 'channel')} up to universe ${SHOW_UNIVERSE_LAST}, the last one.`,
    );
  }
}

/** How new addresses are found: one after the other from a start, in the first gaps that fit, or after what is used. */
export type PlaceHow = 'from' | 'gaps' | 'after';

export interface PlaceRequest {
  readonly how: PlaceHow;
  readonly start: SlotAddress;
  /** Slots left free between one lamp and the next */
  readonly gap: number;
}

/**
 * Finds addresses for lamps, each given by the lengths of its address blocks. Nothing is ever placed
 * over something else or cut by a universe's end. The places found are claimed.
 */
export function placeAll(
  occupancy: Occupancy,
  lamps: readonly (readonly number[])[],
  { how, start, gap }: PlaceRequest,
): Result<SlotAddress[][]> {
  const placed: SlotAddress[][] = [];
  let next = start;
  if (how === 'after') {
    const after = occupancy.lastUsed(start.universe) + 1;
    next = after > SLOTS ? { universe: start.universe + 1, channel: 1 } : { universe: start.universe, channel: after };
  }
  /** A gap once too small for a length stays too small: the next search for it begins where the last ended. */
  const searched = new Map<number, SlotAddress>();
  for (const blocks of lamps) {
    const addresses: SlotAddress[] = [];
    for (const length of blocks) {
      if (length === 0) continue;
      const found = occupancy.nextFit(length, how === 'gaps' ? (searched.get(length) ?? start) : next);
      if (!found.ok) return found;
      occupancy.claim(found.value, length);
      addresses.push(found.value);
      const end = found.value.channel + length;
      searched.set(length, found.value);
      next = end > SLOTS ? { universe: found.value.universe + 1, channel: 1 } : { ...found.value, channel: end };
    }
    if (gap > 0) {
      const channel = next.channel + gap;
      next = channel > SLOTS ? { universe: next.universe + 1, channel: 1 } : { ...next, channel };
    }
    placed.push(addresses);
  }
  return ok(placed);
}

/** Where a lamp’s blocks would lie with other lengths: those that are there stay; one without an address gets none. */
export function placesOf(occupancy: Occupancy, lamp: Lamp, lengths: readonly number[]): Result<SlotAddress[]> {
  const there = addressesOf(lamp).slice(0, lengths.length);
  const missing = lengths.slice(there.length);
  if (!there.some(isAddressed)) return ok([...there, ...missing.map(() => NO_ADDRESS)]);
  const start = { universe: there.find(isAddressed)!.universe, channel: 1 };
  const found = placeAll(occupancy, [missing], { how: 'gaps', start, gap: 0 });
  return found.ok ? ok([...there, ...found.value[0]!]) : found;
}
