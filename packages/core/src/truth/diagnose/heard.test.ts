/** What was heard, in the words of the simulation: never more than the packets and replies say. */
import { nightFerry } from '../../whole/demo';
import { sendersOf } from '../../network/flow';
import { heardMachines, matchMachines, type NodeReport } from '../../network/node';
import { Patch } from '../../rig/patch';
import type { Sighting } from '../../show/records';
import type { StreamReport, UniverseReport } from '../../signal/stream';
import { isTooEarly, observedNow, type DiagnosisHeard } from './heard';
import { isOwn } from './heardStreams';
import { groundOf } from './scene';
import { sightingsNow } from './sightings';

const ferry = nightFerry();
const patch = new Patch(ferry.lamp, ferry.type, ferry.run, ferry.machine);
const AT = 100_000;
const LIVE: DiagnosisHeard = {
  at: AT,
  universes: [],
  syncs: [],
  listeningSince: 0,
  interface: null,
  artnetInterface: null,
  listed: [],
  polled: true,
  membership: { wanted: 41, joined: 41 },
};
const stream = (over: Partial<StreamReport> = {}): StreamReport =>
  ({
    name: 'Bridge desk',
    address: '127.0.0.21',
    priority: 100,
    lost: false,
    preview: false,
    own: false,
    levels: true,
    twin: false,
    startCodes: [],
    syncAddress: 0,
    slotCount: 512,
    rate1: 40,
    discarded1: 0,
    offers: [{ from: 1, to: 512 }],
    rate10: 40,
    jitter: 1,
    missing10: 0,
    firstSeen: 0,
    lastSeen: AT,
    ...over,
  }) as StreamReport;
const heard = (over: Partial<StreamReport>, syncs: number[] = []) => {
  const universe = {
    key: 6,
    protocol: 'sacn',
    number: 6,
    show: 6,
    streams: [stream(over)],
  } as unknown as UniverseReport;
  const synced = syncs.map((number) => ({ universe: number, lastSeen: AT }) as never);
  return observedNow(ferry, patch, { ...LIVE, universes: [universe], syncs: synced }, []);
};
const [six] = heard({}).streams;

test('a stream is its sender’s, by its name first', () => {
  expect(six).toMatchObject({ sender: 'machine-bridge', key: 6, pace: 'even', waits: false, levels: true });
  expect(heard({ address: '127.0.0.121' }).streams[0]).toMatchObject({
    sender: 'machine-bridge',
    address: '127.0.0.121',
  });
  expect(heard({ name: 'X', address: '127.0.0.98' }).streams[0]).toMatchObject({ sender: '127.0.0.98' });
});

test.each<[string, Partial<StreamReport>, object | undefined]>([
  ['silent for longer than it ever is, it is not heard', { lastSeen: AT - 2000 }, undefined],
  ['lost, previewed or our own, it is not heard', { lost: true }, undefined],
  ['a preview is none', { preview: true }, undefined],
  ['few frames are slow', { rate1: 1, rate10: 1, lastSeen: AT - 500 }, { pace: 'slow' }],
  ['losses are ragged', { missing10: 80 }, { pace: 'ragged' }],
  [
    'other start codes alone are no levels',
    { rate1: 0, startCodes: [{ lastSeen: AT - 100 } as never] },
    { levels: false },
  ],
  ['a synchronisation universe that nobody sends', { syncAddress: 7000 }, { waits: true }],
])('%s', (_, over, wanted) => {
  const [one] = heard(over).streams;
  if (wanted === undefined) expect(one).toBeUndefined();
  else expect(one).toMatchObject(wanted);
});

describe('what receivers make of it', () => {
  const slots = patch.universe(6).flatMap(({ channel, length }) => Array.from({ length }, (_, i) => channel + i));
  const [first, last] = [Math.min(...slots), Math.max(...slots)];
  test.each<[string, Partial<StreamReport>, string]>([
    ['a priority for all slots that lamps need', { offers: [{ from: first, to: last }] }, 'all'],
    ['a priority of 0 for one of them', { offers: [{ from: first + 1, to: last }] }, 'some'],
    ['a priority of 0 for the last of them', { offers: [{ from: first, to: last - 1 }] }, 'some'],
    ['a priority of 0 for all of them', { offers: [] }, 'nothing'],
    ['no priorities for slots: the packet’s goes for all', { offers: [], slotPriority: false }, 'all'],
    ['more packets discarded than accepted', { rate1: 1, discarded1: 39, lost: true }, 'discarded'],
    ['each packet twice', { rate1: 40, discarded1: 41 }, 'all'],
    [
      'priorities for more runs of slots than are told: the rest is open',
      { offers: Array.from({ length: 64 }, (_, i) => ({ from: first + i, to: first + i })) },
      'all',
    ],
  ])('%s', (_, over, effect) => expect(heard({ slotPriority: true, ...over }).streams[0]).toMatchObject({ effect }));
});

test('where half of all senders are late at once, how each of them sends is not known', () => {
  const names = sendersOf(ferry.machine).map(({ name }) => name);
  const from = (i: number, over: Partial<StreamReport> = {}) =>
    ({
      ...{ key: i, protocol: 'sacn', number: i, show: i },
      streams: [stream({ name: names[i - 1] ?? `X${i}`, address: `127.0.0.${90 + i}`, ...over })],
    }) as unknown as UniverseReport;
  const paces = (...universes: UniverseReport[]) =>
    observedNow(ferry, patch, { ...LIVE, universes }, []).streams.map(({ pace }) => pace);
  const [slow, ragged] = [{ rate1: 1, rate10: 1 }, { missing10: 80 }];
  expect(paces(from(1, slow), from(2, ragged), from(3), from(4))).toEqual(Array(4).fill('ragged'));
  // Strangers may be late as they like.
  expect(paces(from(1), from(2), from(7, slow), from(8, ragged))).toEqual(['even', 'even', 'slow', 'ragged']);
  // One alone, or few of many, are late by themselves.
  expect(paces(from(1, slow), from(2))).toEqual(['slow', 'even']);
  expect(paces(from(1, slow), from(2, ragged), from(3), from(4), from(5))).toEqual([
    'slow',
    'ragged',
    ...Array(3).fill('even'),
  ]);
});

describe('who uses the name of a sender of the show', () => {
  const on = (key: number, ...streams: Partial<StreamReport>[]): UniverseReport =>
    ({ key, protocol: 'sacn', number: key, show: key, streams: streams.map(stream) }) as unknown as UniverseReport;
  const sendersOn = (...universes: UniverseReport[]) =>
    observedNow(ferry, patch, { ...LIVE, universes }, []).streams.map(({ sender, borrows }) => [sender, borrows]);
  const own = { cid: 'one' };
  const other = { address: '127.0.0.98', cid: 'two' };

  test('while it is received from its own address, is somebody else', () => {
    const it = { id: 'machine-bridge', cid: false };
    expect(sendersOn(on(6, own, other))).toEqual([['machine-bridge', undefined], ['127.0.0.98', it]]); // prettier-ignore
    expect(sendersOn(on(6, own), on(7, other))).toEqual([['machine-bridge', undefined], ['127.0.0.98', it]]); // prettier-ignore
    expect(sendersOn(on(6, own, { ...other, cid: 'one' }))).toEqual([
      ['machine-bridge', undefined],
      ['127.0.0.98', { ...it, cid: true }],
    ]);
  });

  test('is that sender by another interface, where its component id comes with other universes, or it is silent itself', () => {
    expect(sendersOn(on(6, own), on(7, { ...other, cid: 'one' }))).toEqual([
      ['machine-bridge', undefined],
      ['machine-bridge', undefined],
    ]);
    expect(sendersOn(on(6, { ...own, lost: true, lastSeen: 0 }, other))).toEqual([['machine-bridge', undefined]]);
    expect(sendersOn(on(6, other))).toEqual([['machine-bridge', undefined]]);
    // Moved a moment ago: what it sent from its planned address is not lost yet, but silent.
    expect(sendersOn(on(6, { ...own, lastSeen: AT - 1100 }, { ...other, cid: 'one' }))).toEqual([
      ['machine-bridge', undefined],
      ['machine-bridge', undefined],
    ]);
    // Art-Net has no component ids.
    expect(sendersOn(on(6, { cid: '' }), on(7, { ...other, cid: '' }))[1]).toEqual(['machine-bridge', undefined]);
  });
});

test('a synchronisation universe that somebody sends is waited for no longer than a frame', () =>
  expect(heard({ syncAddress: 7000 }, [7000]).streams[0]).toMatchObject({ waits: false }));

test('what ended or began just now is settling, and nothing is held against boxes there', () => {
  expect(heard({ lastSeen: AT - 3000 }).settling).toEqual(new Set([6]));
  expect(heard({ firstSeen: AT - 1000 }).settling).toEqual(new Set([6]));
  expect(heard({ lastSeen: AT - 60_000 }).settling).toEqual(new Set());
});

test('a box that left two polls unanswered says nothing now', () => {
  const node = (lastSeen: number): NodeReport =>
    ({
      address: '127.0.0.37',
      mac: '02:7f:f1:00:00:37',
      shortName: 'Quay node',
      firmware: '1.2',
      failSafe: null,
      priority: 100,
      mask: '',
      ports: [],
      partOf: '',
      alsoHere: [],
      alsoAt: [],
      gone: false,
      firstSeen: 0,
      lastSeen,
    }) as unknown as NodeReport;
  const nodes = (lastSeen: number) => {
    const entries = matchMachines(ferry, heardMachines({ nodes: [node(lastSeen)], discovered: [], universes: [] }));
    return observedNow(ferry, patch, LIVE, entries).nodes.map(({ id }) => id);
  };
  expect(nodes(AT - 3000)).toEqual(['machine-quay']);
  expect(nodes(AT - 5000)).toEqual([]);
});

test('our own output is there as what it is, and no stranger', () => {
  const [own] = heard({ own: true, cid: 'c-1', rate1: 1 }).streams;
  expect(isOwn(own!.sender)).toBe(true);
  // Its pace is no news.
  expect(own).toMatchObject({ pace: 'even' });
});

test('our own output is a sender of the world that nothing is held against', () => {
  const own = stream({ own: true, cid: 'c-1', priority: 150 });
  const universes = [{ key: 6, protocol: 'sacn', number: 6, show: 6, streams: [own] } as unknown as UniverseReport];
  const ground = groundOf({ records: ferry, patch, heard: { ...LIVE, universes }, entries: [] });
  const added = ground.world([]).senders.filter(({ id }) => isOwn(id));
  expect(added).toMatchObject([
    { name: 'Taxiarch', streams: [{ wire: { protocol: 'sacn', number: 6 }, priority: 150 }] },
  ]);
});

test('what begins to listen cannot say what is missing', () => {
  expect(isTooEarly({ ...LIVE, listeningSince: AT - 2000 })).toBe(true);
  expect(isTooEarly({ ...LIVE, listeningSince: AT - 20_000 })).toBe(false);
});

test('a lamp that was seen is seen until lamp, universe, sender or node on its path change', () => {
  const sighting: Sighting = {
    id: 's',
    rev: 5,
    about: { kind: 'lamp', id: 'lamp-101', part: '' },
    question: 'lit',
    answer: 'yes',
    by: 'Ada',
    at: new Date(AT).toISOString(),
  };
  const changed = (kind: 'machine' | 'universe' | 'lamp', id: string) => {
    const all = ferry[kind].map((one) => (one.id === id ? { ...one, rev: 6 } : one));
    return sightingsNow({ ...ferry, sighting: [sighting], [kind]: all }, patchWith(kind, all)).get('lamp lamp-101 lit')!
      .changed;
  };
  const patchWith = (kind: string, all: readonly unknown[]) =>
    kind === 'lamp' ? new Patch(all as typeof ferry.lamp, ferry.type, ferry.run, ferry.machine) : patch;
  expect(changed('machine', 'machine-boiler')).toEqual([]);
  expect(changed('machine', 'machine-car-deck')).toEqual(['Car deck node']);
  expect(changed('machine', 'machine-bridge')).toEqual(['Bridge desk']);
  expect(changed('universe', 'universe-2')).toEqual(['universe 2']);
  expect(changed('lamp', 'lamp-101')).toEqual(['Port spot 1']);
});
