/** The patch: which lamp's attribute each slot is, and where lamps get in each other's way. */
import { SLOTS, formatAddress, type SlotAddress } from '../address';
import { footprintOf, type FixtureChannel, type FixtureMode } from '../fixture';
import type { FixtureType, Lamp } from '../show';

/** One lamp's claim on one slot. */
export interface Claim {
  readonly lamp: Lamp;
  readonly type: FixtureType;
  readonly mode: FixtureMode;
  /** Place within the lamp's footprint, from 1 */
  readonly offset: number;
  /** The attribute there; undefined if the mode leaves this slot unused. */
  readonly channel: FixtureChannel | undefined;
  /** 0 coarse, 1 fine, 2 finest */
  readonly byte: number;
}

export type PatchFinding =
  | {
      readonly rule: 'overlap';
      readonly lamps: readonly [Lamp, Lamp];
      readonly at: SlotAddress;
      readonly sentence: string;
    }
  | { readonly rule: 'past-end'; readonly lamps: readonly [Lamp]; readonly beyond: number; readonly sentence: string };

export interface PatchedLamp {
  readonly lamp: Lamp;
  readonly type: FixtureType;
  readonly mode: FixtureMode;
  readonly footprint: number;
  /** By offset − 1: what the slot carries */
  readonly layout: readonly (readonly [FixtureChannel, number] | undefined)[];
}

function layoutOf(mode: FixtureMode, footprint: number): PatchedLamp['layout'] {
  const layout = new Array<readonly [FixtureChannel, number] | undefined>(footprint).fill(undefined);
  for (const channel of mode.channels)
    channel.offsets.forEach((offset, byte) => (layout[offset - 1] = [channel, byte]));
  return layout;
}

/** A lamp's last slot; beyond 512 if it is cut by the universe's end. */
export const lastChannel = ({ lamp, footprint }: PatchedLamp): number => lamp.channel + footprint - 1;

/** All lamps with their types resolved, by universe and start channel, for quick questions about slots. */
export class Patch {
  private readonly byUniverse = new Map<number, PatchedLamp[]>();
  private readonly byId = new Map<string, PatchedLamp>();

  constructor(lamps: readonly Lamp[], types: readonly FixtureType[]) {
    const typeOf = new Map(types.map((type) => [type.id, type]));
    const shapes = new Map<FixtureMode, Pick<PatchedLamp, 'footprint' | 'layout'>>();
    for (const lamp of lamps) {
      const type = typeOf.get(lamp.typeId);
      const mode = type?.modes.find((one) => one.name === lamp.mode);
      if (!type || !mode) continue;
      let shape = shapes.get(mode);
      if (!shape) {
        const footprint = footprintOf(mode);
        shape = { footprint, layout: layoutOf(mode, footprint) };
        shapes.set(mode, shape);
      }
      const patched = { lamp, type, mode, ...shape };
      this.byId.set(lamp.id, patched);
      const there = this.byUniverse.get(lamp.universe);
      if (there) there.push(patched);
      else this.byUniverse.set(lamp.universe, [patched]);
    }
    for (const there of this.byUniverse.values())
      there.sort((a, b) => a.lamp.channel - b.lamp.channel || a.lamp.number - b.lamp.number);
  }

  /** A lamp with its type and mode; undefined if it is not in the patch. */
  lamp(id: string): PatchedLamp | undefined {
    return this.byId.get(id);
  }

  /** Lamps of a show universe by start channel. */
  universe(number: number): readonly PatchedLamp[] {
    return this.byUniverse.get(number) ?? [];
  }

  /** Show universes that have lamps, rising. */
  universes(): number[] {
    return [...this.byUniverse.keys()].sort((a, b) => a - b);
  }

  /** Every lamp that claims this slot: none, one, or several that overlap. */
  at({ universe, channel }: SlotAddress): Claim[] {
    const claims: Claim[] = [];
    for (const patched of this.universe(universe)) {
      if (patched.lamp.channel > channel) break;
      if (lastChannel(patched) >= channel) claims.push(claimOf(patched, channel));
    }
    return claims;
  }

  /** Overlaps and lamps that run past slot 512; one finding for each pair, in time linear in the lamps. */
  findings(): PatchFinding[] {
    const findings: PatchFinding[] = [];
    for (const there of this.byUniverse.values()) {
      let reach: PatchedLamp | undefined;
      for (const patched of there) {
        const { lamp } = patched;
        const last = lastChannel(patched);
        if (reach && lastChannel(reach) >= lamp.channel) {
          const at = { universe: lamp.universe, channel: lamp.channel };
          findings.push({
            rule: 'overlap',
            lamps: [reach.lamp, lamp],
            at,
            sentence: `Lamps ${reach.lamp.number} and ${lamp.number} overlap from ${formatAddress(at)}.`,
          });
        }
        if (last > SLOTS)
          findings.push({
            rule: 'past-end',
            lamps: [lamp],
            beyond: last - SLOTS,
            sentence: `Lamp ${lamp.number} at ${formatAddress(lamp)} runs ${last - SLOTS} past channel ${SLOTS}.`,
          });
        if (!reach || last > lastChannel(reach)) reach = patched;
      }
    }
    return findings;
  }
}

/** What a slot is within a lamp that reaches over it. */
export function claimOf(patched: PatchedLamp, channel: number): Claim {
  const offset = channel - patched.lamp.channel + 1;
  const [attribute, byte] = patched.layout[offset - 1] ?? [undefined, 0];
  return { lamp: patched.lamp, type: patched.type, mode: patched.mode, offset, channel: attribute, byte };
}
