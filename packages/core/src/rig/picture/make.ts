/** Test pictures for lamps and for whole universes, as programs. */
import { SLOTS } from '../../base/address';
import type { PatchedLamp } from '../patch';
import { defaultsOf, highlightOf, levelsOf, type ChannelValues } from '../level';
import { coloured, hasColour, looksOf, moves, square, type Look } from './looks';
import type { How, Program, Track } from './program';

export const TEST_PICTURES = [
  'level',
  'ramp',
  'chase',
  'every other',
  'one at a time',
  'colour bars',
  'number',
  'pan and tilt',
  'random',
] as const;
export type TestPicture = (typeof TEST_PICTURES)[number];

/** Wire key of a show universe; undefined for one that the show has not */
export type KeyOf = (universe: number) => number | undefined;

/** Of a chase, every so many is lit at once. */
const CHASE = 4;
/** Steps of a ramp, up and down */
const RAMP = 8;
/** Dark steps between two digits, and after the last */
const BETWEEN = 2;
const PAUSE = 6;

/** A number as it is blinked: each digit as often, nought ten times; 1 lit, 0 dark. */
export function blinked(number: number): number[] {
  const digits = [...String(number)].map((digit) => Number(digit) || 10);
  const all = digits.flatMap((digit, i) => [
    ...(i === 0 ? [] : new Array<number>(BETWEEN).fill(0)),
    ...Array.from({ length: digit }, () => [1, 0]).flat(),
  ]);
  return [...all, ...new Array<number>(PAUSE).fill(0)];
}

const RED = ['ColorAdd_R', 'ColorSub_M', 'ColorSub_Y', 'ColorRGB_Red'];
const GREEN = ['ColorAdd_G', 'ColorSub_C', 'ColorSub_Y', 'ColorRGB_Green'];
const BLUE = ['ColorAdd_B', 'ColorSub_C', 'ColorSub_M', 'ColorRGB_Blue'];
const WHITE = [
  'ColorAdd_W',
  'ColorAdd_R',
  'ColorAdd_G',
  'ColorAdd_B',
  'ColorRGB_Red',
  'ColorRGB_Green',
  'ColorRGB_Blue',
];
/** Added colours of each bar; filters that a bar does not need are those of the colours in it. */
const BARS: readonly ReadonlySet<string>[] = [
  new Set(WHITE),
  new Set(RED),
  new Set(GREEN),
  new Set(BLUE),
  new Set(['ColorAdd_R', 'ColorAdd_G', 'ColorSub_Y', 'ColorRGB_Red', 'ColorRGB_Green']),
  new Set(['ColorAdd_G', 'ColorAdd_B', 'ColorSub_C', 'ColorRGB_Green', 'ColorRGB_Blue']),
  new Set(['ColorAdd_R', 'ColorAdd_B', 'ColorSub_M', 'ColorRGB_Red', 'ColorRGB_Blue']),
];

/** One unit of a picture: a lamp, or a slot. */
interface Unit {
  /** Its slots: where, and its value unlit, lit, and by each step of its own looks */
  readonly slots: readonly {
    readonly key: number;
    readonly slot: number;
    readonly off: number;
    readonly on: number;
    readonly dims: boolean;
  }[];
}

/** All slots of a lamp at some values, as bytes by key and slot. */
function bytesOf(patched: PatchedLamp, values: ChannelValues, keyOf: KeyOf): Map<string, number> {
  const bytes = new Map<string, number>();
  patched.mode.channels.forEach((channel, i) => {
    for (const [at, level] of levelsOf(patched, channel, values[i]!)) {
      const key = keyOf(at.universe);
      if (key !== undefined) bytes.set(`${key} ${at.channel - 1}`, level);
    }
  });
  return bytes;
}

/** Slots that carry a lamp's light: its dimmers; without one, its colours. */
function lightOf(patched: PatchedLamp, keyOf: KeyOf): ReadonlySet<string> {
  const { channels } = patched.mode;
  const dimmers = channels.filter(({ attribute }) => attribute === 'Dimmer');
  const carriers =
    dimmers.length > 0 ? dimmers : channels.filter(({ attribute }) => /^Color(Add|RGB)_/.test(attribute));
  const found = new Set<string>();
  for (const channel of carriers)
    for (const [at] of levelsOf(patched, channel, 0)) found.add(`${keyOf(at.universe)} ${at.channel - 1}`);
  return found;
}

const placed = (where: string): { key: number; slot: number } => {
  const [key, slot] = where.split(' ').map(Number) as [number, number];
  return { key, slot };
};

function unitOfLamp(patched: PatchedLamp, keyOf: KeyOf): Unit {
  const on = bytesOf(patched, highlightOf(patched), keyOf);
  const light = lightOf(patched, keyOf);
  const dark = bytesOf(patched, defaultsOf(patched), keyOf);
  return {
    slots: [...on].map(([where, value]) => ({
      ...placed(where),
      on: value,
      // Dark is without light; the rest stands ready for it.
      off: light.size === 0 ? dark.get(where)! : light.has(where) ? 0 : value,
      dims: light.has(where),
    })),
  };
}

const unitsOfUniverse = (key: number): Unit[] =>
  Array.from({ length: SLOTS }, (_, slot) => ({ slots: [{ key, slot, off: 0, on: 255, dims: true }] }));

/** One look after another. */
export function looksProgram(patched: PatchedLamp, looks: readonly Look[], keyOf: KeyOf): Program {
  const frames = looks.map(({ values }) => bytesOf(patched, values, keyOf));
  const light = lightOf(patched, keyOf);
  return {
    steps: looks.length,
    tracks: [...(frames[0]?.keys() ?? [])].map((where) => ({
      ...placed(where),
      dims: light.has(where),
      how: { kind: 'steps', values: frames.map((frame) => frame.get(where)!) },
    })),
  };
}

/** Every slot of a unit by the same way between unlit and lit. */
const moved = (units: readonly Unit[], how: (off: number, on: number, unit: number) => How): Track[] =>
  units.flatMap(({ slots }, i) =>
    slots.map(({ key, slot, off, on, dims }) => ({ key, slot, dims, how: how(off, on, i) })),
  );

type Plain = Exclude<TestPicture, 'colour bars' | 'pan and tilt' | 'random' | 'number'>;
const PLAIN: Readonly<Record<Plain, (units: readonly Unit[]) => Program>> = {
  level: (units) => ({ steps: 1, tracks: moved(units, (_, value) => ({ kind: 'still', value })) }),
  ramp: (units) => ({
    steps: RAMP,
    tracks: moved(units, (from, to) =>
      from === to ? { kind: 'still', value: to } : { kind: 'wave', steps: RAMP, from, to },
    ),
  }),
  chase: (units) => ({
    steps: CHASE,
    tracks: moved(units, (off, on, i) => ({ kind: 'turn', at: i % CHASE, of: CHASE, on, off })),
  }),
  'every other': (units) => ({
    steps: 2,
    tracks: moved(units, (off, on, i) => ({ kind: 'turn', at: i % 2, of: 2, on, off })),
  }),
  'one at a time': (units) => ({
    steps: Math.max(1, units.length),
    tracks: moved(units, (off, on, i) => ({ kind: 'turn', at: i, of: units.length, on, off })),
  }),
};

const random = (units: readonly Unit[]): Program => ({
  steps: 1,
  tracks: moved(units, () => ({ kind: 'random' })),
});

/** Lamps or slots lit by the blinks of a number. */
const numbered = (units: readonly Unit[], number: number): Track[] => {
  const lit = blinked(number);
  return moved(units, (off, on) => ({ kind: 'steps', values: lit.map((one) => (one === 1 ? on : off)) }));
};

const joined = (programs: readonly Program[]): Program => ({
  steps: Math.max(1, ...programs.map(({ steps }) => steps)),
  tracks: programs.flatMap(({ tracks }) => tracks),
});

/** A test picture on lamps. Lamps that have nothing for it, no colour or no movement, are lit. */
export function pictureOfLamps(picture: TestPicture, lamps: readonly PatchedLamp[], keyOf: KeyOf): Program {
  const units = lamps.map((one) => unitOfLamp(one, keyOf));
  switch (picture) {
    case 'random':
      return random(units);
    case 'number':
      return joined(
        lamps.map((one, i) => ({
          steps: blinked(one.lamp.universe).length,
          tracks: numbered([units[i]!], one.lamp.universe),
        })),
      );
    case 'pan and tilt':
      return joined(lamps.map((one) => looksProgram(one, moves(one) ? square(one) : looksOf(one, ['full']), keyOf)));
    case 'colour bars':
      return joined(
        lamps.map((one, i) => {
          const bars = BARS.map((_, step) => BARS[(i + step) % BARS.length]!);
          const looks = hasColour(one)
            ? bars.map((bar) => ({ says: '', values: coloured(one, bar) }))
            : looksOf(one, ['full']);
          return looksProgram(one, looks, keyOf);
        }),
      );
    default:
      return PLAIN[picture](units);
  }
}

/** A test picture on all slots of universes, each as its own number and key. */
export function pictureOfUniverses(
  picture: TestPicture,
  universes: readonly { readonly number: number; readonly key: number }[],
): Program {
  const units = universes.flatMap(({ key }) => unitsOfUniverse(key));
  switch (picture) {
    case 'random':
      return random(units);
    case 'number':
      return joined(
        universes.map(({ number, key }) => ({
          steps: blinked(number).length,
          tracks: numbered(unitsOfUniverse(key), number),
        })),
      );
    case 'colour bars':
    case 'pan and tilt':
      // Slots know nothing of colours or of movement: by threes, as most pixels have them, each third in turn.
      return {
        steps: 3,
        tracks: moved(units, (off, on, i) => ({ kind: 'turn', at: i % 3, of: 3, on, off })),
      };
    default:
      return PLAIN[picture](units);
  }
}
