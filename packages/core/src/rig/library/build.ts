/** Short notation for fixture types: channels one after the other, the fine byte directly behind the coarse one. */
import { lightsWith } from '../fixture';
import {
  PLAIN_TYPE,
  type FixtureChannel,
  type FixtureKind,
  type FixtureMode,
  type FixtureType,
  type ValueRange,
} from '../../show/records';

type More = Partial<Pick<FixtureChannel, 'default' | 'highlight' | 'cell' | 'block' | 'ranges'>>;
export type Spec = readonly [attribute: string, bytes?: 1 | 2 | 3, more?: More];

/** Lays channels one after the other, each address block from 1. */
export function mode(name: string, specs: readonly Spec[]): FixtureMode {
  const next = new Map<number, number>();
  const channels = specs.map(([attribute, bytes = 1, more = {}]): FixtureChannel => {
    const block = more.block ?? 1;
    const first = next.get(block) ?? 1;
    next.set(block, first + bytes);
    return {
      attribute,
      offsets: Array.from({ length: bytes }, (_, i) => first + i),
      default: more.default ?? 0,
      highlight: more.highlight ?? more.default ?? 0,
      ...(more.cell && { cell: more.cell }),
      ...(block > 1 && { block }),
      ...(more.ranges && { ranges: more.ranges }),
    };
  });
  return { name, channels };
}

/** Coarse bytes of all channels first, then all fine ones, as some makers lay them. */
export function fineLast(name: string, specs: readonly Spec[]): FixtureMode {
  const plain = mode(
    name,
    specs.map(([attribute, , more]) => [attribute, 1, more]),
  );
  let fine = specs.length;
  const channels = plain.channels.map((channel, i) =>
    specs[i]![1] === 2 ? { ...channel, offsets: [...channel.offsets, (fine += 1)] } : channel,
  );
  return { name, channels };
}

/** What is switched or blown has no electronics that could answer; all else of the library has. */
const MUTE: ReadonlySet<FixtureKind> = new Set(['relay', 'hazer', 'fan', 'bubbles', 'media']);

/** How far a fixture turns and tilts, and how wide its light is: degrees */
export type Travel = Partial<Pick<FixtureType, 'pan' | 'tilt' | 'beam' | 'field'>>;

const LIGHT: Readonly<Partial<Record<FixtureKind, Travel>>> = {
  dimmer: { beam: 20, field: 36 },
  par: { beam: 14, field: 28 },
  spot: { beam: 6, field: 42 },
  wash: { beam: 8, field: 60 },
  batten: { beam: 18, field: 40 },
  panel: { beam: 30, field: 60 },
  strobe: { beam: 80, field: 110 },
  strip: { beam: 90, field: 120 },
  wall: { beam: 110, field: 140 },
};
const shines = (attribute: string): boolean => lightsWith(attribute) || /^(Shutter|Color)/.test(attribute);
/** Degrees */
const TURN = 540;
const TIP = 270;

export function type(
  id: string,
  kind: FixtureKind,
  maker: string,
  name: string,
  modes: readonly FixtureMode[],
  travel: Travel = {},
): FixtureType {
  const has = (attribute: string) =>
    modes.some(({ channels }) => channels.some((channel) => channel.attribute === attribute));
  return {
    ...PLAIN_TYPE,
    id: `type-${id}`,
    rev: 0,
    maker,
    name,
    kind,
    answers: MUTE.has(kind) ? 'no' : 'yes',
    modes,
    ...(modes.some(({ channels }) => channels.some(({ attribute }) => shines(attribute))) && LIGHT[kind]),
    ...(has('Pan') && kind !== 'media' && { pan: TURN }),
    ...(has('Tilt') && kind !== 'media' && { tilt: TIP }),
    ...travel,
  };
}

/** Ranges from their begins: each reaches up to the next, the last up to `end`. */
export const ranges = (begins: readonly (readonly [number, string])[], end = 255): ValueRange[] =>
  begins.map(([from, name], i) => ({ name, from, to: (begins[i + 1]?.[0] ?? end + 1) - 1 }));

export const LIT: More = { highlight: 255 };
export const LIT_16: More = { highlight: 65535 };
export const OPEN: More = {
  default: 255,
  ranges: ranges([
    [0, 'closed'],
    [10, 'strobe slow to fast'],
    [100, 'pulse'],
    [180, 'random'],
    [250, 'open'],
  ]),
};
export const MIDDLE_8: More = { default: 128 };
export const MIDDLE_16: More = { default: 32768 };
const GLASS: Readonly<Record<string, string>> = {
  open: '#ffffff',
  'signal red': '#c8102e',
  amber: '#ffb000',
  'sea green': '#2e8b57',
  'harbour blue': '#1f4e9e',
  violet: '#7b3fa0',
};
const PATTERNS = ['open', 'ripples', 'portholes', 'rope', 'sail', 'compass'];
const TURNS = 'turn slow to fast';

/** Six slots, each of so many values, then turning */
const wheel = (slots: readonly string[]): ValueRange[] =>
  ranges([...slots.map((name, i) => [i * 20, name] as const), [128, TURNS]]);

/** Glass in the light, by name and colour */
export const COLOUR_WHEEL: More = {
  ranges: wheel(Object.keys(GLASS)).map((one) => ({ ...one, ...(GLASS[one.name] && { colour: GLASS[one.name] }) })),
};
export const GOBO_WHEEL: More = { ranges: wheel(PATTERNS) };
export const CONTROL: More = {
  ranges: ranges([
    [0, 'nothing'],
    [200, 'fans quiet'],
    [220, 'reset'],
    [240, 'lamp off'],
  ]),
};

export const colours = (letters: readonly string[], cell?: number, bytes: 1 | 2 = 1): Spec[] =>
  letters.map((letter) => [`ColorAdd_${letter}`, bytes, { ...(bytes === 1 ? LIT : LIT_16), ...(cell && { cell }) }]);

export const cells = (count: number, letters: readonly string[], bytes: 1 | 2 = 1): Spec[] =>
  Array.from({ length: count }, (_, i) => colours(letters, i + 1, bytes)).flat();
