/** Lamps that stand still or are carried: dimmers, switches, colour, cells. Makers and products are made up. */
import type { FixtureType } from '../../show/records';
import { cells, colours, CONTROL, LIT, LIT_16, MIDDLE_8, mode, OPEN, ranges, type Spec, type } from './build';

const RGB = ['R', 'G', 'B'];
const RGBW = ['R', 'G', 'B', 'W'];
const INTENSITY: Spec = ['Dimmer', 1, LIT];
const STROBE: Spec = ['Shutter1', 1, OPEN];

export const LIGHTS: readonly FixtureType[] = [
  type('lantern', 'dimmer', 'Saltcote', 'Lantern 1k', [
    mode('Dimmer', [INTENSITY]),
    mode('Dimmer 16 bit', [['Dimmer', 2, LIT_16]]),
  ]),
  type('bulkhead', 'dimmer', 'Saltcote', 'Bulkhead', [mode('Dimmer', [INTENSITY])]),
  type('dimmer-6', 'dimmer', 'Saltcote', 'Rack 6', [
    mode(
      'Six dimmers',
      Array.from({ length: 6 }, (_, i): Spec => ['Dimmer', 1, { ...LIT, cell: i + 1 }]),
    ),
  ]),
  type('relay', 'relay', 'Saltcote', 'Switch 10', [
    mode('Switched', [
      [
        'Relay1',
        1,
        {
          ...LIT,
          ranges: ranges([
            [0, 'off'],
            [128, 'on'],
          ]),
        },
      ],
    ]),
  ]),
  type('relay-4', 'relay', 'Marram', 'Contact 4', [
    mode(
      'Four switches',
      Array.from({ length: 4 }, (_, i): Spec => ['Relay1', 1, { ...LIT, cell: i + 1 }]),
    ),
  ]),
  type('petal-3', 'par', 'Orrin', 'Petal 3', [
    mode('RGB', colours(RGB)),
    mode('Intensity RGB', [INTENSITY, ...colours(RGB)]),
  ]),
  type('petal-4', 'par', 'Orrin', 'Petal 4', [
    mode('RGBW', colours(RGBW)),
    mode('Intensity RGBW', [INTENSITY, ...colours(RGBW)]),
    mode('RGBW 16 bit', colours(RGBW, undefined, 2)),
  ]),
  type('petal-5', 'par', 'Orrin', 'Petal 5 UV', [
    mode('Intensity RGBA UV', [INTENSITY, ...colours(['R', 'G', 'B', 'RY', 'UV']), STROBE]),
    mode('RGBA UV', colours(['R', 'G', 'B', 'RY', 'UV'])),
  ]),
  type('cob-200', 'par', 'Orrin', 'Seed 200', [
    mode('Warm and cold', [INTENSITY, ['ColorAdd_WW', 1, LIT], ['ColorAdd_CW', 1, LIT]]),
  ]),
  type('uplight', 'par', 'Tern', 'Kerb 7', [
    mode('Short', colours(RGBW)),
    mode('Long', [INTENSITY, STROBE, ...colours(RGBW), ['CTO'], ['Control1', 1, CONTROL]]),
  ]),
  type('flood', 'par', 'Tern', 'Breakwater', [
    mode('Standard', [['Dimmer', 2, LIT_16], STROBE, ...colours(['R', 'G', 'B', 'W', 'RY'])]),
  ]),
  type('batten-12', 'batten', 'Quillon', 'Batten 12', [
    mode('One colour', [INTENSITY, ...colours(RGB)]),
    mode('Cells RGB', [INTENSITY, STROBE, ...cells(12, RGB)]),
  ]),
  type('batten-18', 'batten', 'Quillon', 'Batten 18 W', [
    mode('Cells RGBW', cells(18, RGBW)),
    mode('Thirds', cells(3, RGBW)),
  ]),
  type('batten-tilt', 'batten', 'Quillon', 'Batten 10 Tilt', [
    mode('Cells RGBW', [['Tilt', 2, { default: 32768 }], INTENSITY, STROBE, ['Zoom', 1, MIDDLE_8], ...cells(10, RGBW)]),
  ]),
  type('panel-25', 'panel', 'Quillon', 'Tile 5 × 5', [
    mode(
      'Cells W',
      Array.from({ length: 25 }, (_, i): Spec => ['Dimmer', 1, { ...LIT, cell: i + 1 }]),
    ),
    mode('Cells RGB', [INTENSITY, ...cells(25, RGB)]),
  ]),
  type('panel-36', 'panel', 'Baleen', 'Porthole 36', [
    mode('Cells RGBW', cells(36, RGBW)),
    mode('Rings RGBW', cells(3, RGBW)),
  ]),
  type('blinder', 'panel', 'Tern', 'Glare 4', [
    mode(
      'Four',
      Array.from({ length: 4 }, (_, i): Spec => ['Dimmer', 1, { ...LIT, cell: i + 1 }]),
    ),
    mode('One', [INTENSITY]),
  ]),
  type('wall', 'wall', 'Marram', 'Hull Panel', [
    mode('Control', [INTENSITY, ['Shutter1', 1, OPEN], ['ColorRGB_Input', 1], ['Control1', 1, CONTROL]]),
    mode('16 pixels', cells(16, RGB)),
    mode('Control and 16 pixels apart', [
      INTENSITY,
      ['Control1', 1, CONTROL],
      ...cells(16, RGB).map(([attribute, bytes, more]): Spec => [attribute, bytes, { ...more, block: 2 }]),
    ]),
  ]),
  type('strip-30', 'strip', 'Marram', 'Cord 30', [mode('RGB', cells(30, RGB))]),
  type('strip-60', 'strip', 'Marram', 'Cord 60 W', [mode('RGBW', cells(60, RGBW)), mode('Halves', cells(2, RGBW))]),
  type('strip-16bit', 'strip', 'Marram', 'Cord 20 Fine', [mode('RGB 16 bit', cells(20, RGB, 2))]),
  type('strobe', 'strobe', 'Tern', 'Flicker 3', [
    mode('Standard', [INTENSITY, ['Shutter1Strobe'], ['ColorAdd_W', 1, LIT]]),
  ]),
  type('strobe-cells', 'strobe', 'Tern', 'Flicker 8', [
    mode('Small', [INTENSITY, ['Shutter1Strobe'], ['StrobeDuration']]),
    mode('Cells', [INTENSITY, ['Shutter1Strobe'], ['StrobeDuration'], ...cells(8, RGB), ...cells(4, ['W'])]),
  ]),
];
