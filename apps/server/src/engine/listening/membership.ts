/** Which multicast groups are joined: by need, so that what somebody looks at is heard however much is announced. */
import { fromWireKey, wireKey } from '@taxiarch/core/base/address';
import { Sacn } from '@taxiarch/core/protocol/sacn';

const FIRST_ARTNET = wireKey({ protocol: 'artnet', number: 0 });

export interface MembershipNeeds {
  /** Keys of the universes that somebody looks at */
  opened(): Iterable<number>;
  /** Keys of the universes that the show plans */
  planned(): Iterable<number>;
  /** sACN universes that routes listen to */
  routed(): Iterable<number>;
  /** Universes on which streams are synchronised */
  syncs(): Iterable<number>;
  /** Keys of the universes that are heard now */
  heard(): Iterable<number>;
  /** sACN universes that are announced, rising */
  announced(): Iterable<number>;
  /** sACN universes that are looked through at the moment */
  swept(): Iterable<number>;
  /** At most so many are joined */
  most(): number;
}

const isSacnUniverse = (universe: number): boolean => universe >= 1 && universe <= Sacn.E131_DISCOVERY_UNIVERSE;

export class Membership {
  /** As many as are needed, joined or not */
  wanted = 0;
  /** Of them are needed more than a sweep needs its own */
  before = 0;
  private last: readonly number[] = [];

  constructor(
    private readonly needs: MembershipNeeds,
    private readonly join: (universes: readonly number[]) => void,
  ) {}

  /** Sees whether something else is needed than before; joins and leaves accordingly. */
  refresh(): void {
    const { needs } = this;
    const list = new Set<number>([Sacn.E131_DISCOVERY_UNIVERSE]);
    const add = (universes: Iterable<number>) => {
      for (const universe of universes) if (isSacnUniverse(universe)) list.add(universe);
    };
    const sacnOf = function* (keys: Iterable<number>) {
      for (const key of keys) if (key < FIRST_ARTNET) yield fromWireKey(key).number;
    };
    add(sacnOf(needs.opened()));
    add(sacnOf(needs.planned()));
    add(needs.routed());
    add(needs.syncs());
    add(sacnOf(needs.heard()));
    // A sender that counts from another number lies one off: what is beside the plan is listened to as well.
    const planned = [...sacnOf(needs.planned())];
    add(planned.flatMap((universe) => [universe - 1, universe + 1]));
    this.before = list.size;
    // A sweep is what a person asked for now; it takes a little of the room that the announced would fill.
    add(needs.swept());
    add(needs.announced());
    this.wanted = list.size;
    const next = [...list].slice(0, needs.most());
    if (next.length === this.last.length && next.every((universe, i) => universe === this.last[i])) return;
    this.last = next;
    this.join(next);
  }
}
