/** The patch: which lamp's or pixel's attribute each slot is. */
import { isAddressed, NO_ADDRESS, type SlotAddress } from '../../base/address';
import { blockOf, blocksOf, type Layout, layoutOf } from '../fixture';
import {
  type FixtureChannel,
  type FixtureMode,
  type FixtureType,
  type Lamp,
  type Machine,
  type PixelRun,
  PLAIN_LAMP,
  PLAIN_TYPE,
} from '../../show/records';
import { layRuns, modeOfRun } from '../pixel';

/** A stretch of slots in one universe that belongs to one lamp: an address block, or part of a run of pixels. */
export interface Span extends SlotAddress {
  readonly patched: PatchedLamp;
  readonly block: number;
  readonly length: number;
  /** Offset within the block of the span's first slot, from 1 */
  readonly first: number;
  /** By slot of the span, from 0: what it carries */
  readonly layout: Layout;
}

/** A lamp with its type and mode, and where it lies. A run of pixels is patched like a lamp of many cells. */
export interface PatchedLamp {
  readonly lamp: Lamp;
  readonly type: FixtureType;
  readonly mode: FixtureMode;
  /** Slots in all its spans */
  readonly footprint: number;
  readonly spans: readonly Span[];
  /** The run, if it is one; `lamp` and `type` then only stand for it. */
  readonly run: PixelRun | undefined;
}

/** One lamp's claim on one slot. */
export interface Claim {
  readonly patched: PatchedLamp;
  readonly lamp: Lamp;
  /** Place within the address block, from 1 */
  readonly offset: number;
  /** The attribute there; undefined if the mode leaves this slot unused. */
  readonly channel: FixtureChannel | undefined;
  /** 0 coarse, 1 fine, 2 finest */
  readonly byte: number;
}

/** A span's last slot; beyond 512 if it is cut by the universe's end. */
export const lastChannel = ({ channel, length }: Pick<Span, 'channel' | 'length'>): number => channel + length - 1;

/** What a slot is within a span that reaches over it. */
export function claimOf({ patched, channel: start, first, layout }: Span, channel: number): Claim {
  const [attribute, byte] = layout[channel - start] ?? [undefined, 0];
  return { patched, lamp: patched.lamp, offset: first + channel - start, channel: attribute, byte };
}

/** Addresses of a channel's bytes, coarse first; those that lie nowhere are left out. */
export function slotsOf({ spans }: PatchedLamp, channel: FixtureChannel): SlotAddress[] {
  const block = blockOf(channel);
  return channel.offsets.flatMap((offset) => {
    const span = spans.find((one) => one.block === block && one.first <= offset && offset < one.first + one.length);
    return span ? { universe: span.universe, channel: span.channel + offset - span.first } : [];
  });
}

/** Where a lamp's address blocks begin, first to last; 0/0 where one has no address. */
export const addressesOf = (lamp: Lamp): SlotAddress[] => [
  { universe: lamp.universe, channel: lamp.channel },
  ...lamp.blocks,
];

/** Show universes in which a lamp has addresses. */
export const universesOfLamp = (lamp: Lamp): number[] =>
  addressesOf(lamp)
    .filter(isAddressed)
    .map(({ universe }) => universe);

interface Shape {
  readonly footprint: number;
  readonly blocks: readonly { readonly length: number; readonly layout: Layout }[];
}

function shapeOf(mode: FixtureMode): Shape {
  const lengths = blocksOf(mode);
  return {
    footprint: lengths.reduce((sum, length) => sum + length, 0),
    blocks: lengths.map((length, i) => ({ length, layout: layoutOf(mode, i + 1) })),
  };
}

/** The record that stands for a run among the lamps. */
const standIn = (run: PixelRun, at: SlotAddress): Lamp => ({
  ...PLAIN_LAMP,
  id: run.id,
  rev: run.rev,
  number: run.number,
  name: run.name,
  typeId: '',
  mode: '',
  universe: at.universe,
  channel: at.channel,
  placeId: run.placeId,
  locked: true,
  ...run.from,
});

const before = (a: Span, b: Span): number => a.channel - b.channel || a.patched.lamp.number - b.patched.lamp.number;

/** All lamps and runs with their types resolved, by universe and start channel, for quick questions about slots. */
export class Patch {
  private readonly byUniverse = new Map<number, Span[]>();
  /** Universes whose spans did not come by start channel */
  private readonly mixed = new Set<Span[]>();
  private readonly every: PatchedLamp[] = [];
  /** Numbers of all lamps and runs, as in {@link all}: looked at apart from the lamps, of which there may be many */
  readonly numbers: number[] = [];
  /** Lamps with an address block that lies nowhere */
  readonly incomplete: PatchedLamp[] = [];
  /** Made when a lamp is first asked for by its id */
  private byId: Map<string, PatchedLamp> | undefined;
  /** What keeps runs from being placed, in sentences */
  readonly runFaults: readonly { readonly run: PixelRun; readonly sentence: string }[];

  constructor(
    lamps: readonly Lamp[],
    types: readonly FixtureType[],
    runs: readonly PixelRun[] = [],
    machines: readonly Machine[] = [],
  ) {
    this.addLamps(lamps, types);
    this.runFaults = this.addRuns(runs, machines);
    for (const there of this.mixed) there.sort(before);
    this.mixed.clear();
  }

  private addLamps(lamps: readonly Lamp[], types: readonly FixtureType[]): void {
    const typeOf = new Map(types.map((type) => [type.id, type]));
    const shapes = new Map<FixtureMode, Shape>();
    for (const lamp of lamps) {
      const type = typeOf.get(lamp.typeId);
      const mode = type?.modes.find((one) => one.name === lamp.mode);
      if (!type || !mode) continue;
      let shape = shapes.get(mode);
      if (!shape) {
        shape = shapeOf(mode);
        shapes.set(mode, shape);
      }
      const spans: Span[] = [];
      const patched: PatchedLamp = { lamp, type, mode, footprint: shape.footprint, spans, run: undefined };
      let addressed = 0;
      shape.blocks.forEach(({ length, layout }, i) => {
        const at = i === 0 ? lamp : lamp.blocks[i - 1];
        if (!at || !isAddressed(at) || length === 0) return;
        spans.push({ patched, block: i + 1, universe: at.universe, channel: at.channel, length, first: 1, layout });
        addressed += length;
      });
      if (addressed < shape.footprint) this.incomplete.push(patched);
      this.add(patched);
    }
  }

  private addRuns(runs: readonly PixelRun[], machines: readonly Machine[]): Patch['runFaults'] {
    const faults: { run: PixelRun; sentence: string }[] = [];
    for (const { run, segments, fault } of layRuns(runs, machines)) {
      if (fault !== undefined) faults.push({ run, sentence: fault });
      const mode = modeOfRun(run);
      const layout = layoutOf(mode, 1);
      const spans: Span[] = [];
      const patched: PatchedLamp = {
        lamp: standIn(run, segments[0] ?? NO_ADDRESS),
        type: { ...PLAIN_TYPE, id: '', rev: 0, maker: '', name: 'Pixels', kind: 'strip', answers: 'no', modes: [mode] },
        mode,
        footprint: layout.length,
        spans,
        run,
      };
      for (const { universe, channel, length, first } of segments)
        spans.push({
          patched,
          block: 1,
          universe,
          channel,
          length,
          first,
          layout: layout.slice(first - 1, first - 1 + length),
        });
      this.add(patched);
    }
    return faults;
  }

  private add(patched: PatchedLamp): void {
    this.every.push(patched);
    this.numbers.push(patched.lamp.number);
    for (const span of patched.spans) {
      const there = this.byUniverse.get(span.universe);
      if (!there) {
        this.byUniverse.set(span.universe, [span]);
        continue;
      }
      if (before(there[there.length - 1]!, span) > 0) this.mixed.add(there);
      there.push(span);
    }
  }

  /** A lamp or run with its type and mode; undefined if it is not in the patch. */
  lamp(id: string): PatchedLamp | undefined {
    this.byId ??= new Map(this.every.map((patched) => [patched.lamp.id, patched]));
    return this.byId.get(id);
  }

  /** All lamps and runs, in no order. */
  all(): readonly PatchedLamp[] {
    return this.every;
  }

  /** What lies in a show universe, by start channel. */
  universe(number: number): readonly Span[] {
    return this.byUniverse.get(number) ?? [];
  }

  /** Show universes that have lamps, rising. */
  universes(): number[] {
    return [...this.byUniverse.keys()].sort((a, b) => a - b);
  }

  /** Everything that claims this slot: none, one, or several that overlap. */
  at({ universe, channel }: SlotAddress): Claim[] {
    const claims: Claim[] = [];
    for (const span of this.universe(universe)) {
      if (span.channel > channel) break;
      if (lastChannel(span) >= channel) claims.push(claimOf(span, channel));
    }
    return claims;
  }
}
