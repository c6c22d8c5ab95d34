/** What moves, blows or plays: moving lights, weather, media servers. Makers and products are made up. */
import type { FixtureType } from '../../show/records';
import {
  cells,
  colours,
  COLOUR_WHEEL,
  CONTROL,
  fineLast,
  GOBO_WHEEL,
  LIT,
  LIT_16,
  MIDDLE_16,
  MIDDLE_8,
  mode,
  OPEN,
  type Spec,
  type,
} from './build';

const RGBW = ['R', 'G', 'B', 'W'];
const POINT_8: Spec[] = [
  ['Pan', 1, MIDDLE_8],
  ['Tilt', 1, MIDDLE_8],
];
const POINT_16: Spec[] = [
  ['Pan', 2, MIDDLE_16],
  ['Tilt', 2, MIDDLE_16],
];
const CMY: Spec[] = [['ColorSub_C'], ['ColorSub_M'], ['ColorSub_Y']];
const WHEELS: Spec[] = [['Color1', 1, COLOUR_WHEEL], ['Gobo1', 1, GOBO_WHEEL], ['Gobo1Pos'], ['Prism1'], ['Frost1']];
const BLADES: Spec[] = [1, 2, 3, 4].flatMap((blade): Spec[] => [[`Blade${blade}A`], [`Blade${blade}Rot`, 1, MIDDLE_8]]);
const OPTICS_8: Spec[] = [['Zoom', 1, MIDDLE_8], ['Focus1', 1, MIDDLE_8], ['Iris']];
const OPTICS_16: Spec[] = [['Zoom', 2, MIDDLE_16], ['Focus1', 2, MIDDLE_16], ['Iris']];
const TAIL: Spec[] = [['Control1', 1, CONTROL]];
const LIT_8: Spec[] = [
  ['Dimmer', 1, LIT],
  ['Shutter1', 1, OPEN],
];
const LIT_FINE: Spec[] = [
  ['Dimmer', 2, LIT_16],
  ['Shutter1', 1, OPEN],
];

const spot = (id: string, name: string, extra: Spec[] = []): FixtureType =>
  type(id, 'spot', 'Baleen', name, [
    mode('Basic', [...POINT_8, ...LIT_8, ...WHEELS, ...extra, ...OPTICS_8, ...TAIL]),
    mode('Extended', [
      ...POINT_16,
      ['PositionMSpeed'],
      ...LIT_FINE,
      ...CMY,
      ['CTO'],
      ...WHEELS,
      ...extra,
      ...OPTICS_16,
      ...TAIL,
    ]),
  ]);

const layer: Spec[] = [
  ['Dimmer', 2, LIT_16],
  ['MediaFolder1'],
  ['MediaContent1'],
  ['Playmode1'],
  ['PlaySpeed1', 1, MIDDLE_8],
  ['PlayBegin1', 2],
  ['PlayEnd1', 2, { default: 65535 }],
  ['Transparency'],
  ['VideoEffect1Type'],
  ['VideoEffect1Parameter1'],
  ['Pan', 2, MIDDLE_16],
  ['Tilt', 2, MIDDLE_16],
  ['Zoom', 2, MIDDLE_16],
  ['Rot_Z', 2, MIDDLE_16],
];

export const MOVERS: readonly FixtureType[] = [
  spot('spot-16', 'Spot 16'),
  spot('spot-24', 'Spot 24 Gate', BLADES),
  type('spot-8', 'spot', 'Orrin', 'Lance 8', [
    mode('Short', [...POINT_8, ...LIT_8, ['Color1', 1, COLOUR_WHEEL], ['Gobo1', 1, GOBO_WHEEL]]),
    fineLast('Fine at the end', [
      ...POINT_16,
      ...LIT_8,
      ['Color1', 1, COLOUR_WHEEL],
      ['Gobo1', 1, GOBO_WHEEL],
      ['Focus1', 1, MIDDLE_8],
    ]),
  ]),
  type('profile', 'spot', 'Quillon', 'Halyard Profile', [
    mode('Standard', [
      ...POINT_16,
      ...LIT_FINE,
      ...CMY,
      ['CTO'],
      ['Color1', 1, COLOUR_WHEEL],
      ...BLADES,
      ['BladeRot', 1, MIDDLE_8],
      ...OPTICS_16,
      ...TAIL,
    ]),
    mode('8 bit', [...POINT_8, ...LIT_8, ...CMY, ['Color1', 1, COLOUR_WHEEL], ...BLADES, ...OPTICS_8, ...TAIL]),
  ]),
  type('beam', 'spot', 'Tern', 'Marline Beam', [
    mode('Standard', [...POINT_16, ['PositionMSpeed'], ...LIT_8, ...WHEELS, ['Focus1', 1, MIDDLE_8], ...TAIL]),
  ]),
  type(
    'scanner',
    'spot',
    'Saltcote',
    'Periscope',
    [mode('Standard', [...POINT_8, ...LIT_8, ['Color1', 1, COLOUR_WHEEL], ['Gobo1', 1, GOBO_WHEEL]])],
    { pan: 180, tilt: 85 },
  ),
  type('wash-9', 'wash', 'Baleen', 'Wash 9', [
    mode('Standard', [
      ...POINT_16,
      ...LIT_8,
      ...colours(RGBW),
      ['CTO'],
      ['Zoom', 1, MIDDLE_8],
      ['PositionMSpeed'],
      ['Control1', 1, CONTROL],
    ]),
    mode('Small', [...POINT_8, ...LIT_8, ...colours(RGBW), ['Zoom', 1, MIDDLE_8]]),
  ]),
  type('wash-19', 'wash', 'Baleen', 'Wash 19 Cells', [
    mode('Standard', [
      ...POINT_16,
      ...LIT_FINE,
      ...colours(RGBW, undefined, 2),
      ['CTO'],
      ['Zoom', 1, MIDDLE_8],
      ...TAIL,
    ]),
    mode('Cells', [...POINT_16, ...LIT_FINE, ['CTO'], ['Zoom', 1, MIDDLE_8], ...TAIL, ...cells(19, RGBW)]),
    mode('Cells apart', [
      ...POINT_16,
      ...LIT_FINE,
      ['Zoom', 1, MIDDLE_8],
      ...TAIL,
      ...cells(19, RGBW).map(([attribute, bytes, more]): Spec => [attribute, bytes, { ...more, block: 2 }]),
    ]),
  ]),
  type('wash-7', 'wash', 'Orrin', 'Fresnel Wash 7', [
    mode('CMY', [
      ...POINT_16,
      ...LIT_FINE,
      ...CMY,
      ['CTO'],
      ['Color1', 1, COLOUR_WHEEL],
      ['Zoom', 1, MIDDLE_8],
      ...TAIL,
    ]),
  ]),
  type('yoke', 'wash', 'Quillon', 'Yoke Mirror', [mode('Standard', [...POINT_16, ['Control1', 1, CONTROL]])]),
  type('haze', 'hazer', 'Marram', 'Sea Fret', [mode('Standard', [['Fog1'], ['Fans']])]),
  type('fog', 'hazer', 'Marram', 'Fog Bank', [
    mode('Standard', [['Fog1']]),
    mode('With fan and lamps', [['Fog1'], ['Fans'], ...colours(['R', 'G', 'B'])]),
  ]),
  type('fan', 'fan', 'Marram', 'Headwind', [
    mode('Standard', [['Fans']]),
    mode('With turn', [['Fans'], ['Pan', 1, MIDDLE_8]]),
  ]),
  type('bubbles', 'bubbles', 'Marram', 'Froth', [mode('Standard', [['Fog1'], ['Fans'], ['Relay1', 1, LIT]])]),
  type('flame', 'other', 'Saltcote', 'Lightvessel', [
    mode('Turning mirror', [
      ['Dimmer', 1, LIT],
      ['Pan', 2, MIDDLE_16],
    ]),
  ]),
  type('media-layer', 'media', 'Quillon', 'Playback Layer', [mode('Full', layer), mode('Short', layer.slice(0, 5))]),
  type('media-output', 'media', 'Quillon', 'Output', [
    mode('Standard', [
      ['Dimmer', 1, LIT],
      ['Shutter1', 1, OPEN],
      ['Zoom', 2, MIDDLE_16],
      ['Rot_Z', 2, MIDDLE_16],
      ...BLADES,
    ]),
    mode('Intensity', [['Dimmer', 1, LIT]]),
  ]),
  type('media-master', 'media', 'Quillon', 'Master', [
    mode('Standard', [
      ['Dimmer', 2, LIT_16],
      ['PlaySpeed1', 1, MIDDLE_8],
      ['Control1', 1, CONTROL],
    ]),
  ]),
  type('tracker', 'other', 'Orrin', 'Follow Table', [
    mode('Standard', [
      ['Pan', 3, { default: 8388608 }],
      ['Tilt', 3, { default: 8388608 }],
    ]),
  ]),
];
