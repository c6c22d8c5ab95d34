/** A run of pixels on one output of a controller. */
import { channel, placeId, showUniverse } from './common';
import {
  choice,
  flag,
  metres,
  name,
  nullable,
  oneOf,
  pattern,
  reference,
  shape,
  whole,
  type Of,
} from '../../base/field';
import { kindOf, type RecordFrom } from './kind';

const point = (label: string) =>
  shape(label, { x: metres(`${label}, x`), y: metres(`${label}, y`), z: metres(`${label}, z`) });

export interface Point extends Of<ReturnType<typeof point>['fields']> {}

/** Where a run of pixels begins: right after the run before it, at an address, or at its controller's first universe. */
const start = choice('Start', { after: {}, at: { universe: showUniverse(), channel: channel() }, controller: {} });

const order = pattern(
  'Order',
  5,
  /^(?!.*(.).*\1)[RGBWA]{1,5}$/,
  'The order is made of the letters R, G, B, W and A, each once at most.',
  { about: 'Letters of R, G, B, W, A in the order in which they are sent.' },
);

export const run = kindOf(
  { one: 'run of pixels', many: 'runs of pixels', table: 'pixel_run', schemaName: 'PixelRun' },
  {
    /** Shares its numbers with the lamps; runs follow one another in this order. */
    number: whole('Number', 1, 999_999, { what: 'The run’s number' }),
    name: name('Name', { what: 'The run’s name' }),
    count: whole('Pixels', 1, 20_000, { what: 'The count of pixels' }),
    order,
    bits: oneOf('Bits of a colour', [8, 16], { sentence: 'A colour has 8 or 16 bits.' }),
    perUniverse: oneOf('Channels of a universe', [510, 512], {
      sentence: 'A universe carries 510 or 512 channels of pixels.',
    }),
    whole: flag('Whole pixels', { what: 'Keeping pixels whole', about: 'Keep each pixel within one universe.' }),
    start,
    reversed: flag('Reversed', { what: 'The direction', about: 'Pixel 1 is the last one sent.' }),
    nulls: whole('Null pixels', 0, 10_000, {
      what: 'The null pixels',
      about: 'Pixels on the wire before the first that is seen; they are dark and count to the output’s length.',
    }),
    nullsSent: flag('Null pixels are sent', { what: 'Sending null pixels', about: 'They take channels too.' }),
    machineId: nullable(reference('Controller')),
    /** Output of the controller, from 1 */
    output: nullable(whole('Output', 1, 1024)),
    placeId,
    from: point('The first pixel'),
    to: point('The last pixel'),
  },
);

export interface PixelRun extends RecordFrom<typeof run> {}
