/**
 * Faults of the demo's bench: the hands on the stand-ins that plant each, the cause that is right, where a person would
 * notice it, and what a person would see there.
 */
import type { Subject } from '../../show/records';

/** What is done to one stand-in, as its bench takes it. */
export type Hand = { readonly id: string } & Readonly<Record<string, unknown>>;

export interface Fault {
  readonly id: string;
  /** What is wrong, in words */
  readonly says: string;
  readonly hands: readonly Hand[];
  /** Causes that are right; more than one where they are the same thing */
  readonly causes: readonly string[];
  /** Where a person would notice it */
  readonly at: Subject;
  /** What a person would see who is asked: `machine machine-boiler on` */
  readonly sees: Readonly<Record<string, 'yes' | 'no'>>;
}

type More = Partial<Pick<Fault, 'sees'>>;

const about = (kind: Subject['kind'], id: string, part = ''): Subject => ({ kind, id, part });
const universe = (number: number): Subject => about('universe', String(number));
const machine = (id: string): Subject => about('machine', `machine-${id}`);
const port = (id: string, number: number): Subject => about('port', `machine-${id}`, String(number));
const link = (id: string): Subject => about('link', `link-${id}`);

const fault = (
  id: string,
  says: string,
  causes: string | readonly string[],
  at: Subject,
  hands: readonly Hand[],
  more: More = {},
): Fault => ({
  id,
  says,
  hands,
  causes: typeof causes === 'string' ? [causes] : causes,
  at,
  sees: {},
  ...more,
});

const err = (id: string, mistakes: object): Hand => ({ id, mistakes });
const set = (id: string, number: number, settings: object): Hand => ({ id, turn: { port: number, settings } });
const turn = (id: string, number: number, wire: number): Hand => ({ id, turn: { port: number, wire } });
/** What is seen at a box that has power. */
const powered = (id: string) =>
  ({ [`machine machine-${id} on`]: 'yes', [`machine machine-${id} link`]: 'no' }) as const;
const dark = (id: string) => ({ [`machine machine-${id} on`]: 'no', [`machine machine-${id} link`]: 'no' }) as const;
const sends = (id: string, so: 'yes' | 'no') => ({ [`machine machine-${id} sends`]: so }) as const;

const SENDERS: readonly Fault[] = [
  fault('bridge-off', 'The Bridge desk’s output is off', 'output-off', universe(1), [{ id: 'bridge', power: false }], {
    sees: sends('bridge', 'no'),
  }),
  fault(
    'stern-off',
    'The Stern desk’s output is off',
    'output-off',
    machine('stern'),
    [{ id: 'stern', power: false }],
    { sees: sends('stern', 'no') },
  ),
  fault('porthole-off', 'Porthole’s output is off', 'output-off', universe(20), [{ id: 'porthole', power: false }], {
    sees: sends('porthole', 'no'),
  }),
  fault(
    'gangway-off',
    'The Gangway panel’s output is off',
    ['output-off', 'line-off'],
    universe(40),
    [{ id: 'gangway', power: false }],
    { sees: sends('gangway', 'no') },
  ),
  fault('bridge-universe-off', 'The Bridge desk does not send universe 2', 'line-off', universe(2), [
    err('bridge', { silent: [2] }),
  ]),
  fault('porthole-universe-off', 'Porthole does not send universe 25', 'line-off', universe(25), [
    err('porthole', { silent: [25] }),
  ]),
  fault('bridge-artnet-off', 'The Bridge desk’s Art-Net is off', 'protocol-off', universe(10), [
    err('bridge', { off: ['artnet'] }),
  ]),
  fault('bridge-sacn-off', 'The Bridge desk’s sACN is off', 'protocol-off', universe(4), [
    err('bridge', { off: ['sacn'] }),
  ]),
  fault('bridge-interface', 'The Bridge desk sends by another interface', 'other-interface', universe(5), [
    err('bridge', { from: '127.0.0.121' }),
  ]),
  fault('stern-interface', 'The Stern desk sends by another interface', 'other-interface', universe(7), [
    err('stern', { from: '127.0.0.122' }),
  ]),
  fault('bridge-base-up', 'The Bridge desk’s sACN lies one above', 'base-differs', universe(1), [
    err('bridge', { shift: { sacn: 1, artnet: 0 } }),
  ]),
  fault('bridge-artnet-base-down', 'The Bridge desk’s Art-Net lies one below', 'base-differs', universe(9), [
    err('bridge', { shift: { sacn: 0, artnet: -1 } }),
  ]),
  fault('porthole-base-up', 'Porthole’s Art-Net lies one above', 'base-differs', universe(13), [
    err('porthole', { shift: { sacn: 0, artnet: 1 } }),
  ]),
  fault('stern-base-up', 'The Stern desk’s sACN lies one above', 'base-differs', universe(3), [
    err('stern', { shift: { sacn: 1, artnet: 0 } }),
  ]),
  fault('bridge-net', 'The Bridge desk sends Art-Net in another net', 'net-differs', universe(9), [
    err('bridge', { net: 1 }),
  ]),
  fault('bridge-sub', 'The Bridge desk sends Art-Net in another sub-net', 'net-differs', universe(11), [
    err('bridge', { sub: 1 }),
  ]),
  fault('priority-equal', 'The Stern desk has the priority of the Bridge desk', 'priority-differs', universe(6), [
    err('stern', { priority: 100 }),
  ]),
  fault('backup-above', 'The Stern desk is above the Bridge desk', 'priority-differs', universe(8), [
    err('stern', { priority: 120 }),
  ]),
  fault('priority-swapped', 'The desks’ priorities are swapped', 'priority-differs', universe(3), [
    err('stern', { priority: 100 }),
    err('bridge', { priority: 90 }),
  ]),
  fault('bridge-low', 'The Bridge desk sends at priority 50', 'priority-differs', universe(7), [
    err('bridge', { priority: 50 }),
  ]),
  fault('third-source', 'A stranger sends universe 6', 'third-source', universe(6), [{ id: 'tender', power: true }]),
  fault('gangway-more', 'The Gangway panel sends universe 7 as well', 'sends-more', universe(7), [
    err('gangway', { also: [7] }),
  ]),
  fault('stern-more', 'The Stern desk sends universe 40 as well', 'sends-more', universe(40), [
    err('stern', { also: [40] }),
  ]),
  fault('bridge-slow', 'The Bridge desk sends once a second', 'slow', universe(4), [err('bridge', { rate: 1.2 })]),
  fault('gangway-slow', 'The Gangway panel sends once a second', 'slow', universe(40), [err('gangway', { rate: 1.2 })]),
  fault('bridge-ragged', 'One of five of the Bridge desk’s packets is lost', 'ragged', universe(2), [
    err('bridge', { loses: 0.2 }),
  ]),
  fault('porthole-ragged', 'One of five of Porthole’s packets is lost', 'ragged', universe(30), [
    err('porthole', { loses: 0.2 }),
  ]),
  fault(
    'sync-nobody',
    'The Bridge desk names a synchronisation universe that nobody sends',
    'sync-nobody',
    universe(5),
    [err('bridge', { syncAddress: 7000 })],
  ),
  fault(
    'stern-sync',
    'The Stern desk names a synchronisation universe that nobody sends',
    'sync-nobody',
    machine('stern'),
    [err('stern', { syncAddress: 7000 })],
  ),
  fault('start-code', 'The Gangway panel sends another start code', 'start-code', universe(40), [
    err('gangway', { startCode: 0x55 }),
  ]),
  fault('short', 'The Bridge desk sends 24 slots', 'short-packets', universe(1), [err('bridge', { slots: 24 })]),
  fault('porthole-short', 'Porthole sends 170 slots', 'short-packets', universe(15), [err('porthole', { slots: 170 })]),
  fault('same-cid', 'The Stern desk has the Bridge desk’s component id', 'same-cid', universe(3), [
    err('stern', { cid: '7ff00000-0000-4000-8000-b41d6e000001' }),
  ]),
  fault(
    'gangway-unicast',
    'The Gangway panel sends to another box only',
    ['unicast-elsewhere', 'output-off', 'line-off'],
    universe(40),
    [err('gangway', { to: '127.0.0.35' })],
    { sees: sends('gangway', 'yes') },
  ),
];

const NODES: readonly Fault[] = [
  fault(
    'boiler-unplugged',
    'The Boiler node’s cable is out',
    'node-unplugged',
    universe(6),
    [{ id: 'boiler', plugged: false }],
    { sees: powered('boiler') },
  ),
  fault(
    'car-deck-unplugged',
    'The Car deck node’s cable is out',
    'node-unplugged',
    universe(4),
    [{ id: 'car-deck', plugged: false }],
    { sees: powered('car-deck') },
  ),
  fault('boiler-off', 'The Boiler node has no power', 'node-off', universe(10), [{ id: 'boiler', power: false }], {
    sees: dark('boiler'),
  }),
  fault('quay-off', 'The Quay node has no power', 'node-off', universe(40), [{ id: 'quay', power: false }], {
    sees: dark('quay'),
  }),
  fault(
    'driver-off',
    'The Port rail driver has no power',
    'node-off',
    universe(15),
    [{ id: 'rail-port', power: false }],
    { sees: dark('rail-port') },
  ),
  fault(
    'saloon-off',
    'The Saloon node has no power',
    ['node-off', 'node-unplugged'],
    universe(41),
    [{ id: 'saloon', power: false }],
    { sees: dark('saloon') },
  ),
  fault('port-elsewhere', 'Port 3 of the Car deck node is set to sACN 9', 'port-elsewhere', universe(4), [
    turn('car-deck', 3, 9),
  ]),
  fault('port-elsewhere-artnet', 'Port 3 of the Boiler node is set to 0.0.12', 'port-elsewhere', universe(10), [
    turn('boiler', 3, 12),
  ]),
  fault('page-elsewhere', 'The Boiler node is set to another sub-net', 'page-elsewhere', universe(9), [
    turn('boiler', 2, 24),
  ]),
  fault('port-off', 'Port 4 of the Boiler node is off', 'port-off', universe(11), [set('boiler', 4, { use: 'off' })]),
  fault('port-off-sacn', 'Port 1 of the Car deck node is off', 'port-off', universe(2), [
    set('car-deck', 1, { use: 'off' }),
  ]),
  fault('direction', 'Port 2 of the Saloon node is an input', 'direction', universe(41), [
    set('saloon', 2, { use: 'in' }),
  ]),
  fault('direction-car-deck', 'Port 5 of the Car deck node is an input', 'direction', universe(7), [
    set('car-deck', 5, { use: 'in' }),
  ]),
  fault('protocol-sacn', 'Port 1 of the Boiler node listens to Art-Net', 'port-protocol', universe(6), [
    set('boiler', 1, { protocol: 'artnet' }),
  ]),
  fault('protocol-artnet', 'Port 2 of the Wheelhouse node listens to sACN', 'port-protocol', universe(12), [
    set('wheelhouse', 2, { protocol: 'sacn' }),
  ]),
  fault('ltp', 'Port 1 of the Boiler node merges by LTP', 'merge-differs', port('boiler', 1), [
    set('boiler', 1, { merge: 'ltp' }),
  ]),
  fault('ltp-car-deck', 'Port 4 of the Car deck node merges by LTP', 'merge-differs', universe(5), [
    set('car-deck', 4, { merge: 'ltp' }),
  ]),
  fault(
    'fail-full',
    'The Boiler node goes full when signal is lost',
    'fail-safe',
    machine('boiler'),
    [1, 2, 3, 4].map((number) => set('boiler', number, { loss: { kind: 'full', after: 0, over: 0 } })),
  ),
  fault(
    'fail-black',
    'The Car deck node goes black when signal is lost',
    'fail-safe',
    machine('car-deck'),
    [1, 2, 3, 4, 5, 6, 7, 8].map((number) =>
      set('car-deck', number, { loss: { kind: 'hold-black', after: 0, over: 0 } }),
    ),
  ),
  fault('input-off', 'The Saloon node’s input is off', 'input-off', universe(41), [
    set('saloon', 1, { disabled: true }),
  ]),
  fault('input-elsewhere', 'The Saloon node’s input sends as universe 42', ['input-off', 'loop'], universe(41), [
    turn('saloon', 1, 42),
  ]),
  fault('moved', 'The Quay node is at another address', 'node-moved', machine('quay'), [
    { id: 'quay', turn: { address: '127.0.0.137' } },
  ]),
  fault('moved-boiler', 'The Boiler node is at another address', 'node-moved', universe(9), [
    { id: 'boiler', turn: { address: '127.0.0.132' } },
  ]),
  fault('mask', 'The Boiler node’s mask is 24 bits', 'mask-differs', machine('boiler'), [
    { id: 'boiler', turn: { mask: '255.255.255.0' } },
  ]),
  fault('firmware', 'The Foredeck node runs firmware 0.9', 'firmware', machine('foredeck'), [
    { id: 'foredeck', firmware: [0, 9] },
  ]),
  fault('firmware-driver', 'The Ceiling driver runs firmware 1.1', 'firmware', machine('ceiling'), [
    { id: 'ceiling', firmware: [1, 1] },
  ]),
  fault('multicast-blocked', 'Multicast does not get through to the Car deck node', 'multicast-blocked', universe(5), [
    { id: 'car-deck', deaf: { multicast: true } },
  ]),
  fault(
    'multicast-quay',
    'Multicast does not get through to the Quay node',
    ['multicast-blocked', 'deaf-to-one'],
    universe(40),
    [{ id: 'quay', deaf: { multicast: true } }],
  ),
  fault('deaf-to-bridge', 'The Boiler node does not hear the Bridge desk', 'deaf-to-one', universe(9), [
    { id: 'boiler', deaf: { to: ['127.0.0.21'] } },
  ]),
  fault('deaf-to-porthole', 'The Quay edge driver does not hear Porthole', 'deaf-to-one', universe(36), [
    { id: 'quay-edge', deaf: { to: ['127.0.0.23'] } },
  ]),
  fault('port-elsewhere-quay', 'Port 6 of the Car deck node is set to sACN 12', 'port-elsewhere', universe(8), [
    turn('car-deck', 6, 12),
  ]),
];

const VISUALISER: readonly Fault[] = [
  fault('visualiser-early', 'Crow’s nest was started before its senders', 'visualiser-early', link('bridge-artnet'), [
    { id: 'crow', faults: { early: true } },
  ]),
  fault('visualiser-interface', 'Crow’s nest uses another interface', 'visualiser-interface', link('bridge-sacn'), [
    { id: 'crow', faults: { iface: 'wrong' } },
  ]),
  fault('visualiser-base', 'Crow’s nest counts Art-Net from 0', 'visualiser-base', link('porthole'), [
    { id: 'crow', faults: { base: 0 } },
  ]),
  fault('visualiser-off', 'Crow’s nest does not run', 'visualiser-off', link('bridge-artnet'), [
    { id: 'crow', power: false },
  ]),
];

/** Each by its id. */
export const FAULTS: readonly Fault[] = [...SENDERS, ...NODES, ...VISUALISER];
