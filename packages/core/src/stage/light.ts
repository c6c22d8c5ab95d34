/** What a lamp looks like by the levels that it receives: colour and intensity. */
import { channelMaximum, type FixtureChannel } from '../fixture';
import { slotsOf, type PatchedLamp } from '../patch';

/** Red, green, blue, each 0–1. */
export type Colour = readonly [number, number, number];

/** How each emitter adds; a rough match of what the eye sees. */
const EMITTERS: Readonly<Record<string, Colour>> = {
  ColorAdd_R: [1, 0, 0],
  ColorAdd_G: [0, 1, 0],
  ColorAdd_B: [0, 0, 1],
  ColorAdd_W: [1, 1, 1],
  ColorAdd_WW: [1, 0.82, 0.6],
  ColorAdd_CW: [0.85, 0.93, 1],
  ColorAdd_RY: [1, 0.65, 0],
  ColorAdd_GY: [0.7, 1, 0],
  ColorAdd_GC: [0, 1, 0.8],
  ColorAdd_UV: [0.35, 0, 0.9],
};
const FILTERS: Readonly<Record<string, number>> = { ColorSub_C: 0, ColorSub_M: 1, ColorSub_Y: 2 };
/** A lamp without colours of its own */
const WARM: Colour = [1, 0.86, 0.66];

/** The level of a byte: universe and channel, 0–255; undefined if its universe is not heard. */
export type LevelAt = (universe: number, channel: number) => number | undefined;

interface Source {
  readonly bytes: readonly { readonly universe: number; readonly channel: number }[];
  readonly maximum: number;
}

function share({ bytes, maximum }: Source, levelAt: LevelAt): number {
  let value = 0;
  for (const { universe, channel } of bytes) {
    const level = levelAt(universe, channel);
    if (level === undefined) return 0;
    value = value * 256 + level;
  }
  return value / maximum;
}

interface Part {
  readonly dimmers: readonly Source[];
  readonly emitters: readonly (readonly [Colour, Source])[];
  readonly filters: readonly (readonly [number, Source])[];
}

/** A lamp made ready for asking what it looks like, many times a second. */
export class Light {
  private readonly master: readonly Source[];
  private readonly parts: readonly Part[];
  /** Show universes that it listens to */
  readonly universes: ReadonlySet<number>;

  constructor(patched: PatchedLamp) {
    const universes = new Set<number>();
    const source = (channel: FixtureChannel): Source => {
      const bytes = slotsOf(patched, channel);
      for (const { universe } of bytes) universes.add(universe);
      return { bytes, maximum: channelMaximum(channel) };
    };
    const { channels } = patched.mode;
    const cells = new Map<number, FixtureChannel[]>();
    for (const channel of channels) {
      const cell = channel.cell ?? 0;
      cells.set(cell, [...(cells.get(cell) ?? []), channel]);
    }
    const whole = cells.get(0) ?? [];
    const dimmersOf = (some: readonly FixtureChannel[]) =>
      some.filter(({ attribute }) => attribute === 'Dimmer' || attribute === 'Relay1').map(source);
    const partOf = (some: readonly FixtureChannel[]): Part => ({
      dimmers: [],
      emitters: some.flatMap((channel) => {
        const colour = EMITTERS[channel.attribute];
        return colour ? [[colour, source(channel)] as const] : [];
      }),
      filters: some.flatMap((channel) => {
        const filter = FILTERS[channel.attribute];
        return filter === undefined ? [] : [[filter, source(channel)] as const];
      }),
    });
    this.master = dimmersOf(whole);
    const inCells = [...cells.entries()].filter(([cell]) => cell > 0).sort(([a], [b]) => a - b);
    this.parts =
      inCells.length === 0
        ? [partOf(whole)]
        : inCells.map(([, some]) => ({ ...partOf(some), dimmers: dimmersOf(some) }));
    this.universes = universes;
  }

  get cells(): number {
    return this.parts.length;
  }

  /** The light of one cell, from 0. */
  cell(index: number, levelAt: LevelAt): Colour {
    const part = this.parts[index]!;
    let intensity = 1;
    for (const dimmer of this.master) intensity *= share(dimmer, levelAt);
    for (const dimmer of part.dimmers) intensity *= share(dimmer, levelAt);
    if (this.master.length === 0 && part.dimmers.length === 0 && part.emitters.length === 0) return [0, 0, 0];
    let [r, g, b] = part.emitters.length > 0 ? [0, 0, 0] : WARM;
    for (const [colour, source] of part.emitters) {
      const level = share(source, levelAt);
      r += colour[0] * level;
      g += colour[1] * level;
      b += colour[2] * level;
    }
    const kept = [1, 1, 1];
    for (const [which, source] of part.filters) kept[which]! -= share(source, levelAt);
    const bound = (value: number) => Math.min(1, Math.max(0, value));
    return [bound(r * kept[0]!) * intensity, bound(g * kept[1]!) * intensity, bound(b * kept[2]!) * intensity];
  }

  /** The light of the whole lamp: the mean of its cells. */
  whole(levelAt: LevelAt): Colour {
    let [r, g, b] = [0, 0, 0];
    for (let i = 0; i < this.parts.length; i += 1) {
      const colour = this.cell(i, levelAt);
      r += colour[0];
      g += colour[1];
      b += colour[2];
    }
    const { length } = this.parts;
    return [r / length, g / length, b / length];
  }
}
