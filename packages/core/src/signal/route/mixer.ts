/** One route as it runs: from what its inputs bring to the 512 levels that it sends, and who owns each. */
import { SLOTS } from '../../base/address';
import { Backup, Merger, NOBODY, type Contender } from '../merge';
import type { RouteInput, RouteWay } from './way';

/** Owner of a slot held by hand. Inputs own under their place in the list of inputs. */
export const BY_HAND = 0xf0;
/** Owner of a slot taken from another input: this and the part's place in the list of parts. */
export const BY_PART = 0x40;

/** Levels that come in, or undefined while nothing does. */
export interface Incoming {
  /** 512 levels */
  readonly values: Uint8Array;
  /** Slots of them that are sent, 0–512 */
  readonly count: number;
  /** When each slot last changed, any clock; needed for LTP only */
  readonly changedAt: Float64Array | null;
}

/** Levels moved by some channels; slots that would leave 1–512 are dropped, those moved in from nowhere are 0. */
export function shift(values: Uint8Array, by: number, into: Uint8Array): void {
  into.fill(0);
  if (by >= 0) into.set(values.subarray(0, SLOTS - by), by);
  else into.set(values.subarray(-by), 0);
}

/** One input as a contender in the route's merge: moved, and under the route's own mark and priority. */
class Lane implements Contender {
  readonly values = new Uint8Array(SLOTS);
  readonly slotPriority = null;
  count = 0;
  changedAt: Float64Array | null = null;

  constructor(
    readonly mark: number,
    private readonly input: RouteInput,
    private readonly even: boolean,
  ) {}

  /** Inputs differ in priority only where the route merges by it. */
  get priority(): number {
    return this.even ? 100 : this.input.priority;
  }

  take({ values, count, changedAt }: Incoming): void {
    const by = this.input.shift;
    shift(values, by, this.values);
    this.count = Math.max(0, Math.min(SLOTS, count + by));
    if (changedAt === null || by === 0) this.changedAt = changedAt;
    else {
      this.changedAt ??= new Float64Array(SLOTS);
      for (let slot = 0; slot < SLOTS; slot += 1) this.changedAt[slot] = changedAt[slot - by] ?? 0;
    }
  }
}

export class RouteMixer {
  /** What is sent: 512 levels, valid until the next mix */
  readonly values = new Uint8Array(SLOTS);
  /** Owner of each: an input's place, {@link BY_PART} and a part's place, {@link BY_HAND}, or nobody */
  readonly owners = new Uint8Array(SLOTS).fill(NOBODY);
  readonly backup = new Backup();
  private readonly lanes: readonly Lane[];
  private readonly merger = new Merger();

  constructor(readonly route: Omit<RouteWay, 'out'>) {
    this.lanes = route.inputs.map((input, i) => new Lane(i, input, route.merge !== 'priority'));
  }

  /** Which inputs are let through now: all that are heard, or for a backup the one whose turn it is. */
  private open(inputs: readonly (Incoming | undefined)[]): Lane[] {
    if (this.route.merge !== 'backup') return this.lanes.filter((_, i) => inputs[i]);
    const heard = inputs.map((one) => one !== undefined);
    const chosen = this.lanes[this.backup.choose(heard, this.route.returns)];
    return chosen ? [chosen] : [];
  }

  /**
   * Mixes anew. `inputs` stand as in the route, `parts` too (undefined for one held by hand, or not
   * heard). `scales` are factors 0–1 of all 512 slots, or null; the master is part of them. What is
   * held by hand is as the person set it: no master scales it.
   */
  mix(
    inputs: readonly (Incoming | undefined)[],
    parts: readonly (Incoming | undefined)[],
    scales: Float32Array | null,
  ): void {
    const { values, owners, route } = this;
    const open = this.open(inputs);
    for (const lane of open) lane.take(inputs[lane.mark]!);
    this.merger.merge(open, route.merge === 'ltp' ? 'ltp' : 'htp');
    values.set(this.merger.values);
    owners.set(this.merger.owners);
    route.parts.forEach((part, i) => {
      const { first, last, by, level, from } = part;
      if (by === 'hand') owners.fill(BY_HAND, first - 1, last);
      else {
        const other = parts[i];
        const begin = from!.channel - 1;
        owners.fill(other ? BY_PART + i : NOBODY, first - 1, last);
        for (let slot = first - 1; slot < last; slot += 1) values[slot] = other?.values[begin + slot - first + 1] ?? 0;
      }
      if (by === 'hand') values.fill(level, first - 1, last);
    });
    if (scales)
      for (let slot = 0; slot < SLOTS; slot += 1)
        if (owners[slot] !== BY_HAND) values[slot] = Math.round(values[slot]! * scales[slot]!);
  }

  /** A person gives back to the first input that is heard. */
  giveBack(inputs: readonly (Incoming | undefined)[]): void {
    this.backup.giveBack(inputs.map((one) => one !== undefined));
  }
}
