/** Addresses for the lamps of a port, so that none is in another’s way: what would be set, where from, and why. */
import { SLOTS } from '../../base/address';
import type { Patch } from '../../rig/patch';
import { lampPortKey, type LampPort } from './ask';
import type { RollRow } from './row';

export const ARRANGE_ORDERS = ['plan', 'number', 'least'] as const;
export type ArrangeOrder = (typeof ARRANGE_ORDERS)[number];

export interface ArrangeLamp {
  readonly uid: string;
  readonly name: string;
  /** Of the lamp in the plan; 0 for a stranger */
  readonly number: number;
  /** Planned channel; 0 for a stranger */
  readonly planned: number;
  /** As it is set now; null for none */
  readonly now: number | null;
  /** Slots in the mode that it keeps or gets, from 1 */
  readonly slots: number;
  /** It stays where it is. */
  readonly locked: boolean;
}

/** Lamps that hang on a port and answer, for {@link arrange}. */
export const lampsToArrange = (rows: readonly RollRow[], port: LampPort, patch: Patch): ArrangeLamp[] =>
  rows.flatMap(({ seen, uid, name, number, lampId }): ArrangeLamp[] => {
    if (!seen || seen.says === 'nothing' || lampPortKey(seen) !== lampPortKey(port)) return [];
    const lamp = patch.lamp(lampId)?.lamp;
    return [
      {
        ...{ uid, number, name: number > 0 ? `${number} ${name}` : name, planned: lamp?.channel ?? 0 },
        ...{ now: seen.startAddress, slots: Math.max(1, seen.slots), locked: lamp?.locked ?? false },
      },
    ];
  });

export interface ArrangeMove {
  readonly uid: string;
  readonly name: string;
  readonly before: number | null;
  readonly after: number;
  readonly why: string;
}

export interface Arranged {
  readonly moves: readonly ArrangeMove[];
  /** For whom no room is left, by UID and name */
  readonly unplaced: readonly Pick<ArrangeLamp, 'uid' | 'name'>[];
}

/** Slots that are taken, from 1. */
class Room {
  private readonly taken = new Uint8Array(SLOTS + 1);

  take(first: number, slots: number): void {
    this.taken.fill(1, first, first + slots);
  }

  fits(first: number, slots: number): boolean {
    return first >= 1 && first + slots - 1 <= SLOTS && !this.taken.subarray(first, first + slots).includes(1);
  }

  gap(from: number, slots: number): number | undefined {
    for (let first = from; first + slots - 1 <= SLOTS; first += 1) if (this.fits(first, slots)) return first;
    return undefined;
  }
}

const last = (number: number): number => (number === 0 ? Infinity : number);
const order = (by: ArrangeOrder) => (a: ArrangeLamp, b: ArrangeLamp) => {
  const key = ({ planned, number, now }: ArrangeLamp) =>
    by === 'plan' ? last(planned) : by === 'number' ? last(number) : (now ?? Infinity);
  const [one, other] = [key(a), key(b)];
  // Two that want the same keep the order of their numbers, so that a second run finds what the first left.
  return (one === other ? 0 : one - other) || last(a.number) - last(b.number) || (a.uid < b.uid ? -1 : 1);
};

/** The lamps of one port, one after the other from its first slot, or where they are with the least moves. */
export function arrange(lamps: readonly ArrangeLamp[], by: ArrangeOrder): Arranged {
  const room = new Room();
  const moves: ArrangeMove[] = [];
  const unplaced: Pick<ArrangeLamp, 'uid' | 'name'>[] = [];
  for (const { locked, now, slots } of lamps) if (locked && now !== null) room.take(now, slots);
  const free = lamps.filter(({ locked, now }) => !locked || now === null).sort(order(by));
  const move = (lamp: ArrangeLamp, after: number, why: string) => {
    room.take(after, lamp.slots);
    if (after !== lamp.now) moves.push({ uid: lamp.uid, name: lamp.name, before: lamp.now, after, why });
  };
  if (by === 'least') {
    const displaced: ArrangeLamp[] = [];
    // Who stands as planned is not moved for one that does not.
    const right = ({ now, planned }: ArrangeLamp) => Number(now !== planned);
    for (const lamp of [...free].sort((a, b) => right(a) - right(b))) {
      if (lamp.now !== null && room.fits(lamp.now, lamp.slots)) room.take(lamp.now, lamp.slots);
      else displaced.push(lamp);
    }
    for (const lamp of displaced) {
      const at = (lamp.planned > 0 && room.fits(lamp.planned, lamp.slots) && lamp.planned) || room.gap(1, lamp.slots);
      if (at === undefined) unplaced.push({ uid: lamp.uid, name: lamp.name });
      else move(lamp, at, lamp.now === null ? 'it has no address' : 'another has some of its channels');
    }
    return { moves, unplaced };
  }
  let next = 1;
  for (const lamp of free) {
    const at = room.gap(next, lamp.slots);
    if (at === undefined) {
      unplaced.push({ uid: lamp.uid, name: lamp.name });
      continue;
    }
    move(lamp, at, by === 'plan' ? 'in the order of the plan' : 'in the order of the numbers');
    next = at + lamp.slots;
  }
  return { moves, unplaced };
}
