/** The demo show's network: its machines, planned as their stand-ins stand on the bench. */
import { MODELS } from '../../rig/library';
import {
  type Machine,
  type MachineKind,
  type MachinePort,
  type Model,
  type Network,
  PLAIN_MACHINE,
  PLAIN_PORT,
} from '../../show/records';
import { CHANNELS_A_RUN, type Driver, DRIVERS, RUNS_A_DRIVER } from './pixels';
import { placeId, type PlaceName } from './places';
import { SENDING } from './senders';

export const CORD_DRIVER_ID = 'machine-funnel-cords';

export const STAND_IN_NETWORK: Network = {
  id: 'network-stand-ins',
  rev: 0,
  name: 'Stand-ins on this computer',
  network: '127.0.0.0',
  prefix: 8,
  dhcp: false,
  standIn: true,
  ranges: [
    { label: 'Consoles', kinds: ['console', 'backup console'], placeId: null, first: '127.0.0.21', last: '127.0.0.22' },
    { label: 'Media', kinds: ['media server', 'visualiser'], placeId: null, first: '127.0.0.23', last: '127.0.0.25' },
    { label: 'Panels', kinds: ['wall panel', 'computer'], placeId: null, first: '127.0.0.26', last: '127.0.0.29' },
    { label: 'Nodes', kinds: ['node', 'pixel controller'], placeId: null, first: '127.0.0.31', last: '127.0.0.95' },
    { label: 'Switches', kinds: ['switch'], placeId: null, first: '127.0.0.11', last: '127.0.0.19' },
  ],
};

interface Planned extends Partial<Machine> {
  readonly address?: string;
  readonly mac?: string;
}

function machine(
  id: string,
  name: string,
  kind: MachineKind,
  model: string | null,
  place: PlaceName | null,
  { address, mac = '', ...rest }: Planned = {},
): Machine {
  return {
    ...PLAIN_MACHINE,
    id: `machine-${id}`,
    rev: 0,
    name,
    kind,
    modelId: model === null ? null : `model-${model}`,
    placeId: place === null ? null : placeId(place),
    sends: SENDING[`machine-${id}`] ?? null,
    interfaces:
      address === undefined ? [] : [{ name: 'Network', mac, addresses: [{ way: 'fixed', address, prefix: 8 }] }],
    ...rest,
  };
}

const port = (number: number, universe: number, over: Partial<MachinePort> = {}): MachinePort => ({
  ...PLAIN_PORT,
  number,
  use: 'out',
  protocol: universe >= 9 && universe <= 13 ? 'artnet' : 'sacn',
  universe,
  ...over,
});
const off = (number: number): MachinePort => port(number, 1, { use: 'off' });
const node = (
  id: string,
  name: string,
  model: string,
  place: PlaceName,
  last: number,
  firmware: string,
  ports: MachinePort[],
) =>
  machine(id, name, 'node', model, place, {
    address: `127.0.0.${last}`,
    mac: `02:7f:f${model.startsWith('marram') ? 1 : model.startsWith('tern') ? 2 : 3}:00:00:${last}`,
    firmware,
    ports: ports.map((one) => ({
      ...one,
      rdm: one.use === 'out' && (MODELS.find(({ id }) => id === `model-${model}`)?.rdm ?? false),
    })),
  });

const driver = ({ id, name, place, last, firstUniverse }: Driver): Machine =>
  machine(id, name, 'pixel controller', 'orrin-strand-16', place, {
    address: `127.0.0.${last}`,
    mac: `02:7f:f4:00:00:${last}`,
    firmware: '1.3',
    controller: { firstUniverse, universes: 5, outputs: RUNS_A_DRIVER, channelsPerOutput: CHANNELS_A_RUN },
  });

export const MACHINES: readonly Machine[] = [
  machine('bridge', 'Bridge desk', 'console', 'baleen-helm', 'Wheelhouse', {
    address: '127.0.0.21',
    mac: '02:7f:f0:00:00:21',
  }),
  machine('porthole', 'Porthole', 'media server', 'orrin-lantern', 'Wheelhouse', {
    address: '127.0.0.23',
    mac: '02:7f:f4:00:00:23',
    notes: 'Comes on board with the video department.',
  }),
  machine('stern', 'Stern desk', 'backup console', 'baleen-helm-low', 'Passenger Saloon', {
    address: '127.0.0.22',
    mac: '02:7f:f0:00:00:22',
  }),
  machine('gangway', 'Gangway panel', 'wall panel', 'tern-touch', 'Quay', { address: '127.0.0.26' }),
  machine('crow', 'Crow’s nest', 'visualiser', 'visualiser', 'Wheelhouse', {
    address: '127.0.0.24',
    mac: '02:7f:f5:00:00:24',
    notes: 'The laptop that shows the ship before the rig is there.',
  }),
  machine('pursers', 'Purser’s desk', 'DMX desk', 'saltcote-tally-24', 'Passenger Saloon', {
    notes: 'Plugged into port 1 of the Saloon node.',
  }),
  machine('weave', 'Deck switch', 'switch', 'quillon-weave-10', 'Car Deck Port', { address: '127.0.0.11' }),
  node('wheelhouse', 'Wheelhouse node', 'marram-quad-4', 'Wheelhouse', 31, '2.4', [
    port(1, 1),
    port(2, 12),
    off(3),
    off(4),
  ]),
  node('boiler', 'Boiler node', 'marram-quad-4', 'Engine Room', 32, '2.4', [
    port(1, 6),
    port(2, 9),
    port(3, 10),
    port(4, 11),
  ]),
  node('car-deck', 'Car deck node', 'tern-rack-8', 'Car Deck Port', 33, '1.9', [
    ...[2, 3, 4, 5, 7, 8].map((universe, i) => port(i + 1, universe)),
    off(7),
    off(8),
  ]),
  node('saloon', 'Saloon node', 'saltcote-bridge-4', 'Passenger Saloon', 34, '3.0', [
    port(1, 41, { use: 'in', label: 'Purser’s desk' }),
    port(2, 41, { label: 'Saloon dimmers' }),
    off(3),
    off(4),
  ]),
  node('foredeck', 'Foredeck node', 'marram-pair-2', 'Foredeck', 35, '1.2', [
    port(1, 1, { merge: 'none' }),
    port(2, 2, { merge: 'none' }),
  ]),
  node('quay', 'Quay node', 'marram-pair-2', 'Quay', 37, '1.2', [
    port(1, 40, { merge: 'none', label: 'Gangway bulkheads' }),
    off(2),
  ]),
  ...DRIVERS.map(driver),
  machine('funnel-cords', 'Funnel cord driver', 'pixel controller', 'marram-driver-4', 'Funnel', {
    address: '127.0.0.36',
    mac: '02:7f:f1:00:00:36',
    firmware: '1.0',
    controller: { firstUniverse: 13, universes: 1, outputs: 4, channelsPerOutput: 450 },
  }),
];

/** The models that the demo's machines are of. */
export const machineModels = (): Model[] => {
  const used = new Set(MACHINES.map(({ modelId }) => modelId));
  return MODELS.filter(({ id }) => used.has(id));
};
