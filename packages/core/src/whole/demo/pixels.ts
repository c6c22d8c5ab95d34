/** The demo show's pixels: cords round the funnel, and rails, coils and edges all over the ship. */
import type { PixelRun, Universe } from '../../show/records';
import { PLACE_BOXES, placeId, type PlaceName } from './places';

/** Show universes of all pixels, which Porthole sends. */
export const PIXELS = { first: 13, last: 38 } as const;

/** A controller that drives four runs of one length from a universe of its own on. */
export interface Driver {
  readonly id: string;
  readonly name: string;
  readonly place: PlaceName;
  /** Last number of its address on the bench */
  readonly last: number;
  readonly firstUniverse: number;
  readonly run: string;
}

export const DRIVERS: readonly Driver[] = [
  { id: 'rail-port', name: 'Port rail driver', place: 'Car Deck Port', last: 41, firstUniverse: 14, run: 'Port rail' },
  {
    id: 'rail-starboard',
    name: 'Starboard rail driver',
    place: 'Car Deck Starboard',
    last: 42,
    firstUniverse: 19,
    run: 'Starboard rail',
  },
  { id: 'coil', name: 'Boiler coil driver', place: 'Engine Room', last: 43, firstUniverse: 24, run: 'Boiler coil' },
  { id: 'ceiling', name: 'Ceiling driver', place: 'Passenger Saloon', last: 44, firstUniverse: 29, run: 'Ceiling' },
  { id: 'quay-edge', name: 'Quay edge driver', place: 'Quay', last: 45, firstUniverse: 34, run: 'Quay edge' },
];
export const RUNS_A_DRIVER = 4;
/** With four channels each, 127 to a universe: four runs take five universes. */
const PIXELS_A_RUN = 140;
export const CHANNELS_A_RUN = PIXELS_A_RUN * 4;

/** Cords of pixels round the funnel, all in universe 13. */
const CORDS: readonly (readonly [name: string, count: number, order: string, output: number, reversed: boolean])[] = [
  ['Funnel rim', 72, 'RGB', 1, false],
  ['Funnel seam port', 30, 'GRB', 2, false],
  ['Funnel seam starboard', 30, 'GRB', 3, true],
  ['Smoke lip', 24, 'RGBW', 4, false],
];

const FIRST_NUMBER = 801;

const PLAIN = { rev: 0, bits: 8, perUniverse: 510, whole: true, nullsSent: false } as const;

function cords(driverId: string): PixelRun[] {
  const [x, y, w, l, z] = PLACE_BOXES.Funnel;
  return CORDS.map(([name, count, order, output, reversed], i): PixelRun => {
    const side = i % 2 === 0 ? 0 : w;
    return {
      ...PLAIN,
      id: `run-${FIRST_NUMBER + i}`,
      number: FIRST_NUMBER + i,
      name,
      count,
      order,
      start: i === 0 ? { kind: 'controller' } : { kind: 'after' },
      reversed,
      nulls: i === 0 ? 1 : 0,
      machineId: driverId,
      output,
      placeId: placeId('Funnel'),
      from: { x: x + side, y: y + i * 0.4, z: z + 1 },
      to: { x: x + side, y: y + l - i * 0.4, z: z + 1 },
    };
  });
}

/** All runs of the show; `cordDriverId` drives those of the funnel. */
export function pixelRuns(cordDriverId: string): PixelRun[] {
  const rails = DRIVERS.flatMap((driver, which) =>
    Array.from({ length: RUNS_A_DRIVER }, (_, i): PixelRun => {
      const number = FIRST_NUMBER + CORDS.length + which * RUNS_A_DRIVER + i;
      const [x, y, w, l, z] = PLACE_BOXES[driver.place];
      const across = x + (w * i) / (RUNS_A_DRIVER - 1);
      return {
        ...PLAIN,
        id: `run-${number}`,
        number,
        name: `${driver.run} ${i + 1}`,
        count: PIXELS_A_RUN,
        order: 'RGBW',
        start: i === 0 ? { kind: 'controller' } : { kind: 'after' },
        reversed: i % 2 === 1,
        nulls: 0,
        machineId: `machine-${driver.id}`,
        output: i + 1,
        placeId: placeId(driver.place),
        from: { x: across, y, z },
        to: { x: across, y: y + l, z },
      };
    }),
  );
  return [...cords(cordDriverId), ...rails];
}

export const pixelUniverses = (): Universe[] =>
  Array.from({ length: PIXELS.last - PIXELS.first + 1 }, (_, i): Universe => {
    const number = PIXELS.first + i;
    const driver = DRIVERS.find((one) => number >= one.firstUniverse && number < one.firstUniverse + 5);
    return {
      id: `universe-${number}`,
      rev: 0,
      number,
      name: driver ? `${driver.run} pixels ${number - driver.firstUniverse + 1}` : 'Funnel pixels',
      protocol: 'artnet',
      wire: number - 1,
      merge: 'htp',
    };
  });
