/** What the Bridge desk plays: looping cues with fades over the lamps of the demo rig, worked out per attribute. */
import { SLOTS } from '@taxiarch/core/base/address';
import { channelMaximum, footprintOf } from '@taxiarch/core/rig/fixture';
import type { FixtureType, Lamp } from '@taxiarch/core/show/records';
import type { Player } from './sender';

export interface Cue {
  readonly name: string;
  readonly fadeSeconds: number;
  readonly holdSeconds: number;
  /** Attributes that move while it stands; the others keep what they had at the end of its fade. */
  readonly moves: readonly string[];
  /** Share of full, 0–1, of one attribute of one lamp at a time in seconds. */
  level(attribute: string, lamp: Lamp, seconds: number): number | undefined;
}

const wave = (turns: number): number => 0.5 + 0.5 * Math.sin(turns * 2 * Math.PI);

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

export const CUES: readonly Cue[] = [
  {
    name: 'Boarding',
    fadeSeconds: 4,
    holdSeconds: 8,
    moves: ['Dimmer', 'Pan', 'Tilt'],
    level(attribute, lamp, seconds) {
      if (attribute === 'Dimmer') return 0.35 + 0.35 * wave(seconds / 9 + lamp.y / 40);
      if (attribute === 'Pan') return 0.4 + 0.2 * wave(seconds / 14 + lamp.number / 7);
      if (attribute === 'Tilt') return 0.45 + 0.1 * wave(seconds / 11 + lamp.number / 5);
      if (attribute === 'Zoom') return 0.6;
      return ember(attribute);
    },
  },
  {
    name: 'Cast off',
    fadeSeconds: 6,
    holdSeconds: 10,
    moves: ['Dimmer', 'Pan', 'Tilt', 'Zoom'],
    level(attribute, lamp, seconds) {
      if (attribute === 'Dimmer') return 0.15 + 0.75 * wave(seconds / 6 - lamp.y / 30);
      if (attribute === 'Pan') return wave(seconds / 20 + lamp.number / 9);
      if (attribute === 'Tilt') return 0.3 + 0.4 * wave(seconds / 16);
      if (attribute === 'Zoom') return wave(seconds / 8);
      if (attribute === 'Fog1' || attribute === 'Fans') return 0.4;
      return sea(attribute);
    },
  },
  {
    name: 'Engine room alarm',
    fadeSeconds: 1,
    holdSeconds: 6,
    moves: ['Dimmer', 'Relay1'],
    level(attribute, lamp, seconds) {
      if (attribute === 'Dimmer') return lamp.z < 0 ? wave(seconds * 1.2) : 0.2;
      if (attribute === 'Shutter1Strobe') return lamp.z < 0 ? 0.7 : 0;
      if (attribute === 'Relay1') return seconds % 2 < 1 ? 1 : 0;
      if (attribute === 'Pan' || attribute === 'Tilt') return 0.5;
      return alarm(attribute);
    },
  },
  {
    name: 'Open water',
    fadeSeconds: 8,
    holdSeconds: 12,
    moves: ['Dimmer', 'Pan'],
    level(attribute, lamp, seconds) {
      if (attribute === 'Dimmer') return 0.2 + 0.3 * wave(seconds / 12 + (lamp.x + lamp.y) / 25);
      if (attribute === 'Pan') return 0.5 + 0.3 * Math.sin(seconds / 5 + lamp.number);
      if (attribute === 'Tilt') return 0.6;
      return fog(attribute);
    },
  },
];

interface PlayedChannel {
  readonly attribute: string;
  readonly top: number;
  /** Share of the highest value at which it rests */
  readonly rest: number;
  /** Its slots from 0, coarse first */
  readonly places: readonly number[];
}

interface Playing {
  readonly lamp: Lamp;
  readonly channels: readonly PlayedChannel[];
}

/** Works out the levels of all universes for cue and fade at any time. */
export class Looks {
  private readonly playing: readonly Playing[];
  /** Of each cue, what moves while it stands */
  private readonly moving: ReadonlyMap<Cue, readonly Playing[]>;
  /** The cue whose standing channels are written, and where */
  private standing: { readonly cue: Cue; readonly universes: ReadonlyMap<number, Uint8Array> } | undefined;

  constructor(lamps: readonly Lamp[], types: readonly FixtureType[]) {
    this.playing = lamps.flatMap((lamp) => {
      const mode = types.find((type) => type.id === lamp.typeId)?.modes.find((one) => one.name === lamp.mode);
      if (!mode || lamp.channel + footprintOf(mode) - 1 > SLOTS) return [];
      const channels = mode.channels.map((channel) => {
        const top = channelMaximum(channel);
        const places = channel.offsets.map((offset) => lamp.channel + offset - 2);
        return { attribute: channel.attribute, top, rest: channel.default / top, places };
      });
      return [{ lamp, channels }];
    });
    this.moving = new Map(
      CUES.map((cue) => [
        cue,
        this.playing.flatMap(({ lamp, channels }) => {
          const moving = channels.filter(({ attribute }) => cue.moves.includes(attribute));
          return moving.length > 0 ? [{ lamp, channels: moving }] : [];
        }),
      ]),
    );
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
    const stands = fade >= 1;
    const written = this.standing?.cue === cue && this.standing.universes === universes;
    this.standing = stands ? { cue, universes } : undefined;
    for (const { lamp, channels } of stands && written ? this.moving.get(cue)! : this.playing) {
      const slots = universes.get(lamp.universe);
      if (!slots) continue;
      for (const { attribute, top, rest, places } of channels) {
        const to = cue.level(attribute, lamp, seconds) ?? rest;
        const from = fade < 1 ? (before.level(attribute, lamp, seconds) ?? rest) : to;
        const share = (from + (to - from) * fade) * (attribute === 'Dimmer' ? master : 1);
        let value = Math.min(top, Math.max(0, Math.round(share * top)));
        for (let i = places.length - 1; i >= 0; i -= 1) {
          slots[places[i]!] = value % 256;
          value = Math.floor(value / 256);
        }
      }
    }
  }
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
