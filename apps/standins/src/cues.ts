/** What the Bridge desk plays: looping cues with fades over the lamps of the demo rig, worked out per attribute. */
import { SLOTS } from '@taxiarch/core/base/address';
import { channelMaximum, footprintOf } from '@taxiarch/core/rig/fixture';
import type { FixtureType, Lamp } from '@taxiarch/core/show/records';
import type { Player } from './sender';

/** A share of full, 0–1, that swings about `middle` by `swing`, once in `period` seconds, `phase` turns ahead. */
interface Swing {
  readonly middle: number;
  readonly swing: number;
  readonly period: number;
  readonly phase: number;
  /** It jumps between its ends instead */
  readonly jumps?: boolean;
}

export interface Cue {
  readonly name: string;
  readonly fadeSeconds: number;
  readonly holdSeconds: number;
  /** What one attribute of one lamp does while it stands: a share of full, 0–1, or one that swings; undefined rests. */
  level(attribute: string, lamp: Lamp): number | Swing | undefined;
}

/** Swings between `low` and `high`. */
const between = (low: number, high: number, period: number, phase = 0): Swing => ({
  middle: (low + high) / 2,
  swing: (high - low) / 2,
  period,
  phase,
});

function tint(red: number, green: number, blue: number, white = 0): (attribute: string) => number | undefined {
  const shares = new Map([
    ['ColorAdd_R', red],
    ['ColorAdd_G', green],
    ['ColorAdd_B', blue],
    ['ColorAdd_W', white],
    ['ColorAdd_RY', red * 0.6],
    ['ColorAdd_UV', blue * 0.5],
  ]);
  return (attribute) => shares.get(attribute);
}

const sea = tint(0.05, 0.45, 0.8, 0.1);
const ember = tint(0.95, 0.35, 0.05, 0.15);
const fog = tint(0.5, 0.55, 0.6, 0.7);
const alarm = tint(1, 0.05, 0.02);
const TURN = 2 * Math.PI;

export const CUES: readonly Cue[] = [
  {
    name: 'Boarding',
    fadeSeconds: 4,
    holdSeconds: 8,
    level(attribute, lamp) {
      if (attribute === 'Dimmer') return between(0.35, 0.7, 9, lamp.y / 40);
      if (attribute === 'Pan') return between(0.4, 0.6, 14, lamp.number / 7);
      if (attribute === 'Tilt') return between(0.45, 0.55, 11, lamp.number / 5);
      if (attribute === 'Zoom') return 0.6;
      return ember(attribute);
    },
  },
  {
    name: 'Cast off',
    fadeSeconds: 6,
    holdSeconds: 10,
    level(attribute, lamp) {
      if (attribute === 'Dimmer') return between(0.15, 0.9, 6, -lamp.y / 30);
      if (attribute === 'Pan') return between(0, 1, 20, lamp.number / 9);
      if (attribute === 'Tilt') return between(0.3, 0.7, 16);
      if (attribute === 'Zoom') return between(0, 1, 8);
      if (attribute === 'Fog1' || attribute === 'Fans') return 0.4;
      return sea(attribute);
    },
  },
  {
    name: 'Engine room alarm',
    fadeSeconds: 1,
    holdSeconds: 6,
    level(attribute, lamp) {
      if (attribute === 'Dimmer') return lamp.z < 0 ? between(0, 1, 1 / 1.2) : 0.2;
      if (attribute === 'Shutter1Strobe') return lamp.z < 0 ? 0.7 : 0;
      if (attribute === 'Relay1') return { ...between(0, 1, 2), jumps: true };
      if (attribute === 'Pan' || attribute === 'Tilt') return 0.5;
      return alarm(attribute);
    },
  },
  {
    name: 'Open water',
    fadeSeconds: 8,
    holdSeconds: 12,
    level(attribute, lamp) {
      if (attribute === 'Dimmer') return between(0.2, 0.5, 12, (lamp.x + lamp.y) / 25);
      if (attribute === 'Pan') return between(0.2, 0.8, 5 * TURN, lamp.number / TURN);
      if (attribute === 'Tilt') return 0.6;
      return fog(attribute);
    },
  },
];

interface PlayedChannel {
  readonly universe: number;
  /** Its highest value */
  readonly top: number;
  /** The master takes it down */
  readonly dims: boolean;
  /** Its slots from 0, coarse first */
  readonly places: readonly number[];
}

/** How a cue moves its channels: share = middle + sine · along + cosine · across, of the clock with that number. */
interface Movement {
  readonly clocks: readonly { readonly period: number; readonly jumps: boolean }[];
  readonly clockOf: Uint8Array;
  readonly middle: Float64Array;
  readonly along: Float64Array;
  readonly across: Float64Array;
  /** Whether a channel moves while it stands; one that the master takes down may always */
  readonly moves: readonly boolean[];
}

/** Sine and cosine of a cue's clocks at a time */
type Hands = readonly (readonly [number, number])[];

const handsOf = ({ clocks }: Movement, seconds: number): Hands =>
  clocks.map(({ period, jumps }) => {
    const turns = seconds / period;
    return jumps ? [turns % 1 < 0.5 ? 1 : -1, 0] : [Math.sin(turns * TURN), Math.cos(turns * TURN)];
  });

const shareOf = ({ clockOf, middle, along, across }: Movement, hands: Hands, i: number): number => {
  const [sine, cosine] = hands[clockOf[i]!]!;
  return middle[i]! + sine * along[i]! + cosine * across[i]!;
};

/** Works out the levels of all universes for cue and fade at any time. */
export class Looks {
  private readonly channels: readonly PlayedChannel[];
  private readonly movements: ReadonlyMap<Cue, Movement>;
  /** The slots of each channel's universe among those written last, and the channels that have some */
  private bound: {
    readonly universes: ReadonlyMap<number, Uint8Array>;
    readonly slots: readonly (Uint8Array | undefined)[];
    readonly own: readonly number[];
  } = { universes: new Map(), slots: [], own: [] };
  /** Of the cue whose standing channels are written there: the channels that move */
  private standing: { readonly cue: Cue; readonly moving: readonly number[] } | undefined;

  constructor(lamps: readonly Lamp[], types: readonly FixtureType[]) {
    const played = lamps.flatMap((lamp) => {
      const mode = types.find((type) => type.id === lamp.typeId)?.modes.find((one) => one.name === lamp.mode);
      if (!mode || lamp.channel + footprintOf(mode) - 1 > SLOTS) return [];
      return mode.channels.map((channel) => {
        const { attribute, offsets } = channel;
        const top = channelMaximum(channel);
        const places = offsets.map((offset) => lamp.channel + offset - 2);
        return {
          lamp,
          attribute,
          universe: lamp.universe,
          top,
          rest: channel.default / top,
          dims: attribute === 'Dimmer',
          places,
        };
      });
    });
    this.channels = played;
    this.movements = new Map(CUES.map((cue) => [cue, movementOf(cue, played)]));
  }

  /** Writes levels into `universes` (by show universe): a share `fade` of `cue`, the rest of `before`. */
  render(
    universes: ReadonlyMap<number, Uint8Array>,
    before: Cue,
    cue: Cue,
    fade: number,
    seconds: number,
    master: number,
  ): void {
    if (this.bound.universes !== universes) this.bind(universes);
    const { slots: all, own } = this.bound;
    const [to, from] = [this.movements.get(cue)!, this.movements.get(before)!];
    const stands = fade >= 1;
    const due = stands && this.standing?.cue === cue ? this.standing.moving : own;
    if (!stands) this.standing = undefined;
    else if (due === own) this.standing = { cue, moving: own.filter((i) => to.moves[i]) };
    const [toHands, fromHands] = [handsOf(to, seconds), handsOf(from, seconds)];
    for (const i of due) {
      const { top, dims, places } = this.channels[i]!;
      const slots = all[i]!;
      const wanted = shareOf(to, toHands, i);
      const was = stands ? wanted : shareOf(from, fromHands, i);
      const share = (was + (wanted - was) * fade) * (dims ? master : 1);
      let value = Math.min(top, Math.max(0, Math.round(share * top)));
      for (let place = places.length - 1; place >= 0; place -= 1) {
        slots[places[place]!] = value & 0xff;
        value = Math.floor(value / 256);
      }
    }
  }

  private bind(universes: ReadonlyMap<number, Uint8Array>): void {
    const slots = this.channels.map(({ universe }) => universes.get(universe));
    this.bound = { universes, slots, own: slots.flatMap((one, i) => (one ? [i] : [])) };
    this.standing = undefined;
  }
}

function movementOf(
  cue: Cue,
  channels: readonly {
    readonly lamp: Lamp;
    readonly attribute: string;
    readonly rest: number;
    readonly dims: boolean;
  }[],
): Movement {
  const clocks: { period: number; jumps: boolean }[] = [];
  const clockOf = new Uint8Array(channels.length);
  const moves: boolean[] = [];
  const numbers = () => new Float64Array(channels.length);
  const [middle, along, across] = [numbers(), numbers(), numbers()];
  channels.forEach(({ lamp, attribute, rest, dims }, i) => {
    const level = cue.level(attribute, lamp) ?? rest;
    const swings = typeof level !== 'number';
    moves.push(swings || dims);
    const { middle: at, swing, period, phase, jumps = false } = swings ? level : between(level, level, 1);
    let clock = clocks.findIndex((one) => one.period === period && one.jumps === jumps);
    if (clock < 0) clock = clocks.push({ period, jumps }) - 1;
    clockOf[i] = clock;
    middle[i] = at;
    // sin(turns + phase), taken apart
    along[i] = swing * Math.cos(phase * TURN);
    across[i] = swing * Math.sin(phase * TURN);
  });
  return { clocks, clockOf, moves, middle, along, across };
}

/** Cues one after the other, each with its fade and its time to stand. */
export class CuePlayer implements Player {
  readonly cues = CUES.map(({ name }) => name);
  readonly faders: readonly number[] = [];
  private now = 0;
  private before = CUES.length - 1;
  private began: number | undefined;

  constructor(private readonly looks: Looks) {}

  get cue(): string {
    return CUES[this.now]!.name;
  }

  go(name?: string): void {
    const wanted = name === undefined ? (this.now + 1) % CUES.length : this.cues.indexOf(name);
    if (wanted < 0) throw new Error(`There is no cue “${name}”.`);
    this.before = this.now;
    this.now = wanted;
    this.began = undefined;
  }

  setFader(): void {
    throw new Error('This desk has no faders for single channels.');
  }

  render(universes: ReadonlyMap<number, Uint8Array>, seconds: number, master: number): void {
    this.began ??= seconds;
    const { fadeSeconds, holdSeconds } = CUES[this.now]!;
    if (seconds - this.began > fadeSeconds + holdSeconds) {
      this.go();
      this.began = seconds;
    }
    const fade = Math.min(1, (seconds - this.began!) / CUES[this.now]!.fadeSeconds);
    this.looks.render(universes, CUES[this.before]!, CUES[this.now]!, fade, seconds, master);
  }
}
