/**
 * Night Ferry: a promenade play on a retired car ferry, Halcyon Wren, moored at Pellan Quay.
 * People, makers, ship and places are made up; addresses are loopback ones.
 */
import { footprintOf } from '../../rig/fixture';
import {
  PLAIN_LAMP,
  type FixtureType,
  type Lamp,
  type Place,
  type ShowRecords,
  type Universe,
} from '../../show/records';
import { LIBRARY } from '../../rig/library';
import { CORD_DRIVER_ID, machineModels, MACHINES, STAND_IN_NETWORK } from './network';
import { pixelRuns, pixelUniverses } from './pixels';
import { HOUSE_UNIVERSE, LINKS, PURSERS_UNIVERSE } from './senders';
import { PLACE_BOXES, placeId, type PlaceName, PLACES } from './places';

interface Batch {
  readonly count: number;
  readonly type: string;
  readonly mode: string;
  readonly place: PlaceName;
  readonly name: string;
  readonly universe: number;
  readonly numberFrom: number;
}

const BATCHES: readonly Batch[] = [
  {
    count: 12,
    type: 'lantern',
    mode: 'Dimmer',
    place: 'Wheelhouse',
    name: 'Wheelhouse lantern',
    universe: 1,
    numberFrom: 1,
  },
  {
    count: 24,
    type: 'lantern',
    mode: 'Dimmer',
    place: 'Foredeck',
    name: 'Foredeck lantern',
    universe: 1,
    numberFrom: 21,
  },
  {
    count: 24,
    type: 'petal-4',
    mode: 'Intensity RGBW',
    place: 'Foredeck',
    name: 'Foredeck petal',
    universe: 1,
    numberFrom: 51,
  },
  {
    count: 6,
    type: 'strobe',
    mode: 'Standard',
    place: 'Foredeck',
    name: 'Foredeck flicker',
    universe: 1,
    numberFrom: 91,
  },
  {
    count: 20,
    type: 'spot-16',
    mode: 'Extended',
    place: 'Car Deck Port',
    name: 'Port spot',
    universe: 2,
    numberFrom: 101,
  },
  {
    count: 20,
    type: 'spot-16',
    mode: 'Extended',
    place: 'Car Deck Starboard',
    name: 'Starboard spot',
    universe: 3,
    numberFrom: 201,
  },
  {
    count: 28,
    type: 'wash-9',
    mode: 'Standard',
    place: 'Car Deck Port',
    name: 'Port wash',
    universe: 4,
    numberFrom: 131,
  },
  {
    count: 28,
    type: 'wash-9',
    mode: 'Standard',
    place: 'Car Deck Starboard',
    name: 'Starboard wash',
    universe: 5,
    numberFrom: 231,
  },
  {
    count: 30,
    type: 'petal-5',
    mode: 'Intensity RGBA UV',
    place: 'Engine Room',
    name: 'Boiler petal',
    universe: 6,
    numberFrom: 301,
  },
  {
    count: 12,
    type: 'strobe',
    mode: 'Standard',
    place: 'Engine Room',
    name: 'Piston flicker',
    universe: 6,
    numberFrom: 341,
  },
  { count: 4, type: 'haze', mode: 'Standard', place: 'Engine Room', name: 'Bilge haze', universe: 6, numberFrom: 361 },
  { count: 8, type: 'relay', mode: 'Switched', place: 'Engine Room', name: 'Pump relay', universe: 6, numberFrom: 371 },
  {
    count: 36,
    type: 'lantern',
    mode: 'Dimmer',
    place: 'Passenger Saloon',
    name: 'Saloon sconce',
    universe: 7,
    numberFrom: 401,
  },
  {
    count: 32,
    type: 'petal-4',
    mode: 'Intensity RGBW',
    place: 'Passenger Saloon',
    name: 'Saloon petal',
    universe: 7,
    numberFrom: 441,
  },
  { count: 20, type: 'lantern', mode: 'Dimmer', place: 'Quay', name: 'Quay lamp post', universe: 8, numberFrom: 501 },
  {
    count: 30,
    type: 'petal-4',
    mode: 'Intensity RGBW',
    place: 'Quay',
    name: 'Quay petal',
    universe: 8,
    numberFrom: 521,
  },
  {
    count: 12,
    type: 'batten-12',
    mode: 'Cells RGB',
    place: 'Engine Room',
    name: 'Catwalk batten',
    universe: 9,
    numberFrom: 381,
  },
  {
    count: 12,
    type: 'batten-12',
    mode: 'Cells RGB',
    place: 'Passenger Saloon',
    name: 'Bar batten',
    universe: 10,
    numberFrom: 481,
  },
  {
    count: 36,
    type: 'petal-5',
    mode: 'Intensity RGBA UV',
    place: 'Funnel',
    name: 'Funnel petal',
    universe: 11,
    numberFrom: 601,
  },
  {
    count: 18,
    type: 'petal-4',
    mode: 'Intensity RGBW',
    place: 'Wheelhouse',
    name: 'Bridge-wing petal',
    universe: 12,
    numberFrom: 701,
  },
  {
    count: 8,
    type: 'lantern',
    mode: 'Dimmer',
    place: 'Quay',
    name: 'Gangway bulkhead',
    universe: HOUSE_UNIVERSE,
    numberFrom: 721,
  },
];

/** The types that the show uses; the rest of the library waits to be added. */
const TYPES = LIBRARY.filter((type) => BATCHES.some((batch) => `type-${batch.type}` === type.id));

const UNIVERSE_NAMES = [
  'Foredeck and wheelhouse',
  'Port spots',
  'Starboard spots',
  'Port wash',
  'Starboard wash',
  'Engine room',
  'Saloon',
  'Quay',
  'Catwalk battens',
  'Bar battens',
  'Funnel',
  'Bridge wings',
];
/** Universes up to this one travel as sACN, those after it as Art-Net. */
const LAST_SACN = 8;

/** Spreads `count` lamps of a batch over its place, row by row. */
function position(place: PlaceName, index: number, count: number): { x: number; y: number; z: number } {
  const [x, y, w, l, z] = PLACE_BOXES[place];
  const columns = Math.max(1, Math.round(Math.sqrt((count * w) / l)));
  const rows = Math.ceil(count / columns);
  const round = (metres: number) => Math.round(metres * 100) / 100;
  return {
    x: round(x + (w * ((index % columns) + 0.5)) / columns),
    y: round(y + (l * (Math.floor(index / columns) + 0.5)) / rows),
    z,
  };
}

function lamps(types: readonly FixtureType[]): Lamp[] {
  const nextChannel = new Map<number, number>();
  return BATCHES.flatMap((batch) => {
    const type = types.find((one) => one.id === `type-${batch.type}`)!;
    const footprint = footprintOf(type.modes.find((mode) => mode.name === batch.mode)!);
    return Array.from({ length: batch.count }, (_, i): Lamp => {
      const channel = nextChannel.get(batch.universe) ?? 1;
      nextChannel.set(batch.universe, channel + footprint);
      const number = batch.numberFrom + i;
      return {
        ...PLAIN_LAMP,
        id: `lamp-${number}`,
        rev: 0,
        number,
        name: `${batch.name} ${i + 1}`,
        typeId: type.id,
        mode: batch.mode,
        universe: batch.universe,
        channel,
        placeId: placeId(batch.place),
        groups: [`${batch.name}s`],
        ...position(batch.place, i, batch.count),
      };
    });
  });
}

const universes = (): Universe[] => [
  ...UNIVERSE_NAMES.map((name, i): Universe => ({
    id: `universe-${i + 1}`,
    rev: 0,
    number: i + 1,
    name,
    protocol: i < LAST_SACN ? 'sacn' : 'artnet',
    // Art-Net counts from 0: show universe 9 travels as 0.0.8.
    wire: i < LAST_SACN ? i + 1 : i,
    merge: 'htp',
  })),
  ...pixelUniverses(),
  ...(
    [
      [HOUSE_UNIVERSE, 'Gangway and house light'],
      [PURSERS_UNIVERSE, 'Purser’s desk'],
    ] as const
  ).map(([number, name]): Universe => ({
    id: `universe-${number}`,
    rev: 0,
    number,
    name,
    protocol: 'sacn',
    wire: number,
    merge: 'htp',
  })),
];

const places = (): Place[] => PLACES.map((name, i) => ({ id: placeId(name), rev: 0, name, order: i + 1 }));

/** The whole demo show, the same at every call. */
export const nightFerry = (): ShowRecords => ({
  show: [
    {
      id: 'show',
      rev: 0,
      name: 'Night Ferry',
      about: 'A promenade play on the retired car ferry Halcyon Wren, moored at Pellan Quay.',
      file: null,
    },
  ],
  place: places(),
  type: TYPES,
  universe: universes(),
  lamp: lamps(TYPES),
  network: [STAND_IN_NETWORK],
  model: machineModels(),
  machine: MACHINES,
  snapshot: [],
  run: pixelRuns(CORD_DRIVER_ID),
  route: [],
  control: [],
  link: LINKS,
  sighting: [],
  good: [],
  lampSettings: [],
  walk: [],
  mark: [],
  proof: [],
  arrival: [],
});
