/** The fixture types of the demo show. Makers and products are made up. */
import type { FixtureChannel, FixtureMode } from '../fixture';
import type { FixtureType } from '../show';

type Spec = readonly [attribute: string, bytes?: 1 | 2, rest?: { default?: number; highlight?: number; cell?: number }];

/** Lays channels one after the other; 16-bit ones have their fine byte directly after. */
function mode(name: string, specs: readonly Spec[]): FixtureMode {
  let next = 1;
  const channels = specs.map(([attribute, bytes = 1, rest = {}]): FixtureChannel => {
    const offsets = Array.from({ length: bytes }, () => next++);
    return {
      attribute,
      offsets,
      default: rest.default ?? 0,
      highlight: rest.highlight ?? rest.default ?? 0,
      ...(rest.cell && { cell: rest.cell }),
    };
  });
  return { name, channels };
}

const LIT = { highlight: 255 };
const OPEN = { default: 255 };
const MIDDLE_16 = { default: 32768 };
const MIDDLE_8 = { default: 128 };
const colours = (letters: readonly string[], cell?: number): Spec[] =>
  letters.map((letter) => [`ColorAdd_${letter}`, 1, { ...LIT, ...(cell && { cell }) }]);
const cells = (count: number, letters: readonly string[]): Spec[] =>
  Array.from({ length: count }, (_, i) => colours(letters, i + 1)).flat();

const type = (id: string, maker: string, name: string, modes: readonly FixtureMode[]): FixtureType => ({
  id: `type-${id}`,
  rev: 0,
  maker,
  name,
  modes,
});

const SPOT_TAIL: Spec[] = [['Color1'], ['Gobo1'], ['Gobo1Pos'], ['Prism1'], ['Frost1']];

export const DEMO_TYPES: readonly FixtureType[] = [
  type('lantern', 'Saltcote', 'Lantern 1k', [mode('Dimmer', [['Dimmer', 1, LIT]])]),
  type('relay', 'Saltcote', 'Switch 10', [mode('Switched', [['Relay1', 1, LIT]])]),
  type('petal-4', 'Orrin', 'Petal 4', [
    mode('RGBW', colours(['R', 'G', 'B', 'W'])),
    mode('Intensity RGBW', [['Dimmer', 1, LIT], ...colours(['R', 'G', 'B', 'W'])]),
  ]),
  type('petal-5', 'Orrin', 'Petal 5 UV', [
    mode('Intensity RGBA UV', [['Dimmer', 1, LIT], ...colours(['R', 'G', 'B', 'RY', 'UV']), ['Shutter1', 1, OPEN]]),
  ]),
  type('spot-16', 'Baleen', 'Spot 16', [
    mode('Basic', [
      ['Pan', 1, MIDDLE_8],
      ['Tilt', 1, MIDDLE_8],
      ['Dimmer', 1, LIT],
      ['Shutter1', 1, OPEN],
      ...SPOT_TAIL,
      ['Zoom', 1, MIDDLE_8],
      ['Focus1', 1, MIDDLE_8],
      ['Iris'],
      ['Control1'],
    ]),
    mode('Extended', [
      ['Pan', 2, MIDDLE_16],
      ['Tilt', 2, MIDDLE_16],
      ['PositionMSpeed'],
      ['Dimmer', 2, { highlight: 65535 }],
      ['Shutter1', 1, OPEN],
      ['ColorSub_C'],
      ['ColorSub_M'],
      ['ColorSub_Y'],
      ['CTO'],
      ...SPOT_TAIL,
      ['Zoom', 2, MIDDLE_16],
      ['Focus1', 2, MIDDLE_16],
      ['Iris'],
      ['Control1'],
    ]),
  ]),
  type('wash-9', 'Baleen', 'Wash 9', [
    mode('Standard', [
      ['Pan', 2, MIDDLE_16],
      ['Tilt', 2, MIDDLE_16],
      ['Dimmer', 1, LIT],
      ['Shutter1', 1, OPEN],
      ...colours(['R', 'G', 'B', 'W']),
      ['CTO'],
      ['Zoom', 1, MIDDLE_8],
      ['PositionMSpeed'],
      ['Control1'],
    ]),
  ]),
  type('batten-12', 'Quillon', 'Batten 12', [
    mode('One colour', [['Dimmer', 1, LIT], ...colours(['R', 'G', 'B'])]),
    mode('Cells RGB', [['Dimmer', 1, LIT], ['Shutter1', 1, OPEN], ...cells(12, ['R', 'G', 'B'])]),
  ]),
  type('strobe', 'Tern', 'Flicker 3', [
    mode('Standard', [['Dimmer', 1, LIT], ['Shutter1Strobe'], ['ColorAdd_W', 1, LIT]]),
  ]),
  type('haze', 'Marram', 'Sea Fret', [mode('Standard', [['Fog1'], ['Fans']])]),
];
