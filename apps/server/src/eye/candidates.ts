/** Lamps that come into question, and where each listens now. */
import { SLOTS } from '@taxiarch/core/base/address';
import { levelsOfLook, type Look } from '@taxiarch/core/proving/eye';
import type { Patch } from '@taxiarch/core/rig/patch';
import type { FixtureMode, FixtureType, Lamp, Universe } from '@taxiarch/core/show/records';
import { lampPortKey, modeSeen, sameType, universeAt, type RollPort, type SeenLamp } from '@taxiarch/core/truth/roll';
import type { PlanView } from '../bridge/plan';

/** The universe that comes out of each port, by the port’s key; only where the port is set to it as planned. */
function universesOf(
  ports: readonly RollPort[],
  plan: Pick<PlanView, 'machine' | 'universe'>,
): ReadonlyMap<string, Universe> {
  const byNumber = new Map(plan.universe.map((one) => [one.number, one]));
  return new Map(
    ports.flatMap((port) => {
      const universe = byNumber.get(universeAt(plan, port.machineId, port.number) ?? 0);
      // A port that is set to another number puts out something else: levels for it would light others.
      return universe?.wire === port.portAddress ? [[lampPortKey(port), universe] as const] : [];
    }),
  );
}

export class Candidates {
  private readonly universes: ReadonlyMap<string, Universe>;
  /** How many listen to each slot, by universe */
  private readonly listeners = new Map<number, Uint16Array>();

  constructor(
    private readonly seen: readonly SeenLamp[],
    ports: readonly RollPort[],
    plan: Pick<PlanView, 'machine' | 'universe'>,
    private readonly patch: Patch,
    private readonly types: readonly FixtureType[],
  ) {
    this.universes = universesOf(ports, plan);
    for (const one of seen) {
      const slots = this.slotsOf(one);
      const universe = this.universe(one)?.number ?? 0;
      const counts = this.listeners.get(universe) ?? new Uint16Array(SLOTS + 1);
      this.listeners.set(universe, counts);
      for (const slot of slots) counts[slot]! += 1;
    }
  }

  /** Slots that it listens to, from 1; none without an address */
  private slotsOf({ startAddress, slots }: SeenLamp): number[] {
    if (startAddress === null) return [];
    return Array.from({ length: Math.min(slots, SLOTS + 1 - startAddress) }, (_, i) => startAddress + i);
  }

  universe(seen: SeenLamp): Universe | undefined {
    return this.universes.get(lampPortKey(seen));
  }

  /** On the cables of these lamps, none of whom is another’s: in the order of their addresses, then of their UIDs. */
  on(lamps: readonly Lamp[], others: ReadonlySet<string>): SeenLamp[] {
    const universes = new Set(lamps.map(({ universe }) => universe));
    return this.seen
      .filter((one) => one.says === 'all' && !others.has(one.uid) && universes.has(this.universe(one)?.number ?? 0))
      .sort(
        (a, b) =>
          lampPortKey(a).localeCompare(lampPortKey(b), 'en', { numeric: true }) ||
          (a.startAddress ?? 0) - (b.startAddress ?? 0) ||
          (a.uid < b.uid ? -1 : 1),
      );
  }

  /** The mode that it is in, as the show knows it; undefined if none of the types is like that. */
  private modeOf(seen: SeenLamp): FixtureMode | undefined {
    const type = this.types.find((one) => sameType({ type: one }, seen));
    return type && modeSeen(type, seen);
  }

  /** Levels by slot (0–511) that give it a look. */
  levels(seen: SeenLamp, look: Look): [slot: number, level: number][] {
    const mode = this.modeOf(seen);
    const slots = this.slotsOf(seen);
    const levels: [number, number][] = mode
      ? levelsOfLook(mode, look)
      : slots.map((_, i) => [i, look === 'now' ? 255 : 0]);
    return levels.flatMap(([offset, level]): [number, number][] =>
      slots[offset] === undefined ? [] : [[slots[offset] - 1, level]],
    );
  }

  /**
   * Whether a level would light it and nobody else: no other that answers listens to any of its slots, and the plan has
   * no lamp there that was not chosen and may not be able to answer.
   */
  isAlone(seen: SeenLamp, chosen: ReadonlySet<string>): boolean {
    const universe = this.universe(seen)?.number;
    if (universe === undefined || seen.startAddress === null) return false;
    const counts = this.listeners.get(universe)!;
    return this.slotsOf(seen).every(
      (channel) =>
        counts[channel] === 1 && this.patch.at({ universe, channel }).every(({ lamp }) => chosen.has(lamp.id)),
    );
  }
}
