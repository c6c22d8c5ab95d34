/** What a lamp looks like by the levels that it receives: colour and intensity. */
import { channelMaximum } from '../fixture';
import type { FixtureChannel } from '../../show/records';
import { type PatchedLamp, slotsOf } from '../patch';

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

  /** The light of one cell, from 0. Whoever asks many times a picture gives the array to put it `into`. */
  cell(index: number, levelAt: LevelAt, into: [number, number, number] = [0, 0, 0]): Colour {
    const { dimmers, emitters, filters } = this.parts[index]!;
    let intensity = this.master.length === 0 && dimmers.length === 0 && emitters.length === 0 ? 0 : 1;
    for (const dimmer of this.master) intensity *= share(dimmer, levelAt);
    for (const dimmer of dimmers) intensity *= share(dimmer, levelAt);
    into[0] = into[1] = into[2] = 0;
    if (intensity === 0) return into;
    if (emitters.length === 0) add(into, WARM, 1);
    for (const [colour, source] of emitters) add(into, colour, share(source, levelAt));
    for (let i = 0; i < 3; i += 1) {
      let kept = 1;
      for (const [which, source] of filters) if (which === i) kept -= share(source, levelAt);
      into[i] = Math.min(1, Math.max(0, into[i]! * kept)) * intensity;
    }
    return into;
  }

  /** The light of the whole lamp: the mean of its cells. */
  whole(levelAt: LevelAt, into: [number, number, number] = [0, 0, 0]): Colour {
    const { length } = this.parts;
    if (length === 1) return this.cell(0, levelAt, into);
    const one: [number, number, number] = [0, 0, 0];
    into[0] = into[1] = into[2] = 0;
    for (let i = 0; i < length; i += 1) add(into, this.cell(i, levelAt, one), 1 / length);
    return into;
  }
}

function add(into: [number, number, number], colour: Colour, level: number): void {
  into[0] += colour[0] * level;
  into[1] += colour[1] * level;
  into[2] += colour[2] * level;
}
