/** The nodes of the demo's bench, as they were set at their front panels before anybody pushed anything. */
import { nightFerry } from '@taxiarch/core/whole/demo';
import { mainAddress } from '@taxiarch/core/network/ip';
import { MODELS } from '@taxiarch/core/rig/library';
import type { BoxSetup } from './settings';

const modelOf = (id: string) => MODELS.find((one) => one.id === `model-${id}`)!;
/** sACN ports: the Port-Address and the sACN universe are one number (Art-Net 4, "sACN"). */
const sacn = (...universes: number[]) => universes.map((wire) => ({ wire }));

/** Port-Addresses that the controller at an address is planned to take. */
function pixelUniverses(address: string): number[] {
  const ferry = nightFerry();
  const { controller } = ferry.machine.find((one) => mainAddress(one) === address)!;
  if (!controller) return [];
  const { firstUniverse, universes } = controller;
  return ferry.universe
    .filter(({ number }) => number >= firstUniverse && number < firstUniverse + universes)
    .map(({ wire }) => wire);
}

/** A pixel controller; the last number of its addresses is written alike in both. */
const driver = (id: string, shortName: string, last: number): BoxSetup => ({
  id,
  // It has no DMX ports; each universe of its pixels is a page of its own, so that it may lie in any sub-net.
  model: { ...modelOf('orrin-strand-16'), perPage: 1 },
  mac: [2, 0x7f, 0xf4, 0, 0, last],
  shortName,
  longName: 'Orrin Strand 16',
  address: `127.0.0.${last.toString(16)}`,
  firmware: [1, 3],
  ports: pixelUniverses(`127.0.0.${last.toString(16)}`).map((wire) => ({ wire, protocol: 'artnet' })),
});

export const BOXES: readonly BoxSetup[] = [
  {
    id: 'wheelhouse',
    model: modelOf('marram-quad-4'),
    mac: [2, 0x7f, 0xf1, 0, 0, 0x31],
    shortName: 'Wheelhouse node',
    longName: 'Marram Quad 4, wheelhouse',
    address: '127.0.0.31',
    firmware: [2, 4],
    ports: [{ wire: 1 }, { wire: 11, protocol: 'artnet' }, { wire: 0, use: 'off' }, { wire: 0, use: 'off' }],
  },
  {
    id: 'boiler',
    model: modelOf('marram-quad-4'),
    mac: [2, 0x7f, 0xf1, 0, 0, 0x32],
    shortName: 'Boiler node',
    longName: 'Marram Quad 4, engine room',
    address: '127.0.0.32',
    firmware: [2, 4],
    ports: [{ wire: 6 }, ...[8, 9, 10].map((wire) => ({ wire, protocol: 'artnet' as const }))],
  },
  {
    id: 'car-deck',
    model: modelOf('tern-rack-8'),
    mac: [2, 0x7f, 0xf2, 0, 0, 0x33],
    shortName: 'Car deck node',
    longName: 'Tern Rack 8, car deck',
    address: '127.0.0.33',
    firmware: [1, 9],
    ports: [...sacn(2, 3, 4, 5, 7, 8), { wire: 0, use: 'off' }, { wire: 0, use: 'off' }],
  },
  {
    id: 'saloon',
    model: modelOf('saltcote-bridge-4'),
    mac: [2, 0x7f, 0xf3, 0, 0, 0x34],
    shortName: 'Saloon node',
    longName: 'Saltcote Bridge 4, passenger saloon',
    address: '127.0.0.34',
    firmware: [3, 0],
    ports: [{ wire: 41, use: 'in' }, { wire: 41 }, ...[32, 32].map((wire) => ({ wire, use: 'off' as const }))],
  },
  {
    id: 'foredeck',
    model: modelOf('marram-pair-2'),
    mac: [2, 0x7f, 0xf1, 0, 0, 0x35],
    shortName: 'Foredeck node',
    longName: 'Marram Pair 2, foredeck',
    address: '127.0.0.35',
    firmware: [1, 2],
    ports: [{ wire: 1 }, { wire: 2 }],
  },
  {
    id: 'funnel-cords',
    model: { ...modelOf('marram-driver-4'), perPage: 1 },
    mac: [2, 0x7f, 0xf1, 0, 0, 0x36],
    shortName: 'Funnel cord drive',
    longName: 'Marram Driver 4, funnel',
    address: '127.0.0.36',
    firmware: [1, 0],
    ports: pixelUniverses('127.0.0.36').map((wire) => ({ wire, protocol: 'artnet' })),
  },
  {
    id: 'quay',
    model: modelOf('marram-pair-2'),
    mac: [2, 0x7f, 0xf1, 0, 0, 0x37],
    shortName: 'Quay node',
    longName: 'Marram Pair 2, quay',
    address: '127.0.0.37',
    firmware: [1, 2],
    ports: [{ wire: 40 }, { wire: 0x20, use: 'off' }],
  },
  driver('rail-port', 'Port rail driver', 0x41),
  driver('rail-starboard', 'Starboard rail dr', 0x42),
  driver('coil', 'Boiler coil drive', 0x43),
  driver('ceiling', 'Ceiling driver', 0x44),
  driver('quay-edge', 'Quay edge driver', 0x45),
  {
    id: 'spare',
    model: modelOf('tern-rack-16'),
    mac: [2, 0x7f, 0xf2, 0, 0, 0x3f],
    shortName: 'Spare',
    longName: 'Tern Rack 16, from the store',
    address: '127.0.0.63',
    firmware: [1, 7],
    ports: Array.from({ length: 16 }, (_, i) => ({ wire: 32 + i, protocol: 'artnet' as const })),
    off: true,
  },
];

/** The Purser's desk is plugged into this input. */
export const PURSERS_INPUT = { id: 'saloon', port: 0 } as const;
