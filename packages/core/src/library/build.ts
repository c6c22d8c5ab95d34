/** Short notation for fixture types: channels one after the other, the fine byte directly behind the coarse one. */
import type { FixtureChannel, FixtureKind, FixtureMode, FixtureType, ValueRange } from '../records';

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

export const type = (
  id: string,
  kind: FixtureKind,
  maker: string,
  name: string,
  modes: readonly FixtureMode[],
): FixtureType => ({ id: `type-${id}`, rev: 0, maker, name, kind, file: null, modes });

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
export const WHEEL: More = {
  ranges: ranges([
    [0, 'open'],
    [20, 'slot 1'],
    [40, 'slot 2'],
    [60, 'slot 3'],
    [80, 'slot 4'],
    [100, 'slot 5'],
    [128, 'turn slow to fast'],
  ]),
};
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
