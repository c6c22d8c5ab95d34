/** Routes on real sockets: what is sent on loopback goes in, and other sockets are witness of what comes out. */
import { createSocket } from 'node:dgram';
import { networkInterfaces } from 'node:os';
import { multicastGroup, multicastGroup6, wireKey, type WireUniverse } from '@taxiarch/core/base/address';
import { decodeArtNet } from '@taxiarch/core/protocol/artnet';
import type { LearnReply, LiveReport, Problem } from '@taxiarch/core/whole/contract';
import type { RouteInput, RouteReport } from '@taxiarch/core/signal/route';
import { decodeSacn, type SacnData } from '@taxiarch/core/protocol/sacn';
import {
  type AnyRecord,
  type Control,
  type Kind,
  PLAIN_INPUT,
  PLAIN_ROUTE,
  type Route,
} from '@taxiarch/core/show/records';
import { Sender, closeSockets, openSocket, stopSenders } from '../../testing/wire';
import { ServerProcess, eventually, newFolder, removeFolder, udpPorts } from '../../testing/serverProcess';

jest.setTimeout(180_000);

const folder = newFolder();
let server: ServerProcess;
const WITNESS = '127.0.0.77';
/** What the witness heard, by universe, newest last. */
const heard = new Map<number, Uint8Array[]>();
const packets: SacnData[] = [];
/** Sequence numbers of the ArtDmx that the witness heard */
const artnetSequences: number[] = [];

const sacn = (number: number): WireUniverse => ({ protocol: 'sacn', number });
const artnet = (number: number): WireUniverse => ({ protocol: 'artnet', number });
const input = (wire: WireUniverse, over: Partial<RouteInput> = {}): RouteInput => ({ ...PLAIN_INPUT, wire, ...over });
const route = (id: string, from: readonly RouteInput[], out: WireUniverse, over: Partial<Route> = {}): Route => ({
  ...PLAIN_ROUTE,
  id,
  rev: 0,
  name: id,
  order: 0,
  inputs: from,
  out,
  delivery: 'unicast',
  addresses: [WITNESS],
  ...over,
});

const live = () => server.get<LiveReport>('/api/live');
const routeNow = async (id: string) => (await server.get<RouteReport[]>('/api/routes')).find((one) => one.id === id);
const put = (kind: Kind, after: AnyRecord, rev: number | null = null) =>
  server.request('POST', '/api/edits', {
    author: 'Mara',
    sentence: `Planned ${after.id}`,
    changes: [{ kind, id: after.id, rev, after }],
  });
const hot = (on: boolean) => server.request('POST', '/api/output/hot', { hot: on, by: 'Mara' });
const run = (id: string, on = true) => server.request('POST', '/api/routes/run', { ids: [id], on, by: 'Mara' });
const last = (universe: number) => heard.get(universe)?.at(-1);
const levels = (given: Record<number, number>) => {
  const slots = new Uint8Array(512);
  for (const [channel, level] of Object.entries(given)) slots[Number(channel) - 1] = level;
  return slots;
};
const desk = async (universe: number, given: Record<number, number>, who = 9) =>
  new Sender(await openSocket('127.0.0.1', 0), {
    universe,
    cid: new Uint8Array(16).fill(who),
    sourceName: `Desk ${who}`,
    slots: levels(given),
  }).start();

const note = (universe: number, slots: Uint8Array) =>
  heard.set(universe, [...(heard.get(universe) ?? []).slice(-50), slots.slice()]);

beforeAll(async () => {
  server = await ServerProcess.start(folder);
  await openSocket(WITNESS, udpPorts.artnet, (bytes) => {
    const decoded = decodeArtNet(bytes);
    if (!decoded.ok || decoded.value.kind !== 'dmx') return;
    artnetSequences.push(decoded.value.sequence);
    note(decoded.value.portAddress, decoded.value.slots);
  });
  await openSocket(WITNESS, udpPorts.sacn, (bytes) => {
    const decoded = decodeSacn(bytes);
    if (!decoded.ok || decoded.value.kind !== 'data') return;
    packets.push(decoded.value);
    note(0x10000 + decoded.value.universe, decoded.value.slots);
  });
});
afterEach(() => {
  stopSenders();
  heard.clear();
  packets.length = 0;
  artnetSequences.length = 0;
});
afterAll(async () => {
  closeSockets();
  await server.stop();
  removeFolder(folder);
});

test('nothing is sent until a person has made hot and switched the route on; then by the other protocol, moved', async () => {
  await put('route', route('a', [input(sacn(300), { shift: 10 })], artnet(40)));
  const from = await desk(300, { 1: 11, 512: 99 });
  await eventually(
    () => routeNow('a'),
    (one) => one?.inputs[0] === true,
  );
  const refused = await run('a');
  expect([refused.status, (refused.body as Problem).detail]).toEqual([
    409,
    'Taxiarch is safe and sends nothing. Make it hot first.',
  ]);
  expect(last(40)).toBeUndefined();
  await hot(true);
  await run('a');
  const slots = await eventually(
    () => last(40),
    (one) => one !== undefined,
  );
  expect([slots![0], slots![10], slots![511]]).toEqual([0, 11, 0]);
  // Not one is missing, though the socket was only opened with the first.
  expect(artnetSequences.slice(0, 3)).toEqual([1, 2, 3].slice(0, artnetSequences.length));
  await eventually(
    () => routeNow('a'),
    (one) => (one?.rate ?? 0) > 30,
  );
  from.fields.slots = levels({ 1: 77 });
  await eventually(
    () => last(40)?.[10],
    (level) => level === 77,
  );
  await run('a', false);
  heard.clear();
  await new Promise((done) => setTimeout(done, 200));
  expect(last(40)).toBeUndefined();
});

test('a route that would loop is refused with its path; so are two that send one universe', async () => {
  await put('route', route('b', [input(sacn(301))], sacn(302)));
  const looped = await put('route', route('c', [input(sacn(302))], sacn(301)));
  expect([looped.status, (looped.body as Problem).detail]).toEqual([
    422,
    'These routes would feed themselves: sACN 302 → sACN 301 → sACN 302.',
  ]);
  const twice = await put('route', route('d', [input(sacn(303))], sacn(302)));
  expect((twice.body as Problem).detail).toBe(
    'The routes b and d would both send sACN 302: make one route of them, with the inputs of both.',
  );
});

test('three owners in one universe: through, by hand, from another input; the stream ends terminated', async () => {
  await put(
    'route',
    route('e', [input(sacn(304))], sacn(305), {
      priority: 77,
      parts: [
        { first: 3, last: 4, by: 'hand', level: 200, from: null },
        { first: 5, last: 6, by: 'input', level: 0, from: { wire: sacn(306), channel: 10 } },
      ],
    }),
  );
  await desk(304, { 1: 10, 3: 10, 5: 10 });
  await desk(306, { 10: 60, 11: 61 }, 8);
  await hot(true);
  await run('e');
  await eventually(
    () => [...(last(0x10000 + 305)?.subarray(0, 6) ?? [])],
    (six) => String(six) === '10,0,200,200,60,61',
  );
  expect(packets.at(-1)).toMatchObject({ sourceName: 'Taxiarch', priority: 77, terminated: false });
  // Two universes come in at 40 Hz; what goes out keeps the pace of the one that passes through.
  const before = packets.length;
  await new Promise((done) => setTimeout(done, 2000));
  expect(packets.length - before).toBeGreaterThan(50);
  expect(packets.length - before).toBeLessThan(88);
  packets.length = 0;
  await hot(false);
  await eventually(
    () => packets.filter(({ terminated }) => terminated).length,
    (count) => count === 3,
  );
  expect((await routeNow('e'))?.running).toBe(false);
});

test('what a route sends to the network is heard as planned there, and does not fight with what is taken', async () => {
  await put('route', route('f', [input(sacn(307))], sacn(3), { delivery: 'usual', addresses: [] }));
  await desk(307, { 1: 50, 2: 51 });
  await hot(true);
  await run('f');
  const there = await eventually(
    async () => (await live()).universes.find((one) => one.key === wireKey(sacn(3))),
    (one) => one?.streams.some((stream) => stream.routed && !stream.lost) ?? false,
  );
  expect(there).toMatchObject({ state: 'steady', streams: [{ name: 'Taxiarch', own: true, routed: true }] });
  await server.request('POST', '/api/output/take', { client: 'm', by: 'm', slots: { '3/1': 255 }, stay: true });
  const both = await eventually(
    async () => (await live()).universes.find((one) => one.key === wireKey(sacn(3)))!,
    (one) => one.streams.filter(({ lost }) => !lost).length === 2,
  );
  expect(both.streams.every(({ missing, late }) => missing === 0 && late === 0)).toBe(true);
  await hot(false);
});

test('the backup takes over when the first is silent for its loss time, and goes on until it is given back', async () => {
  await put(
    'route',
    route('g', [input(sacn(310)), input(sacn(311))], artnet(41), { merge: 'backup', returns: 'by hand' }),
  );
  const first = await desk(310, { 1: 10 });
  await desk(311, { 1: 20 }, 8);
  await hot(true);
  await run('g');
  await eventually(
    () => last(41)?.[0],
    (level) => level === 10,
  );
  first.stop();
  const stopped = Date.now();
  await eventually(
    () => last(41)?.[0],
    (level) => level === 20,
  );
  expect(Date.now() - stopped).toBeGreaterThan(2200);
  first.start();
  await eventually(
    () => routeNow('g'),
    (one) => one?.inputs[0] === true && one.current === 1,
  );
  await server.request('POST', '/api/routes/give-back', { id: 'g' });
  await eventually(
    () => last(41)?.[0],
    (level) => level === 10,
  );
  await hot(false);
});

describe('the input map', () => {
  const control = (id: string, channel: number, over: Partial<Control>): Control => ({
    id,
    rev: 0,
    name: id,
    wire: sacn(320),
    channel,
    does: 'master',
    target: { kind: 'route', id: 'h' },
    threshold: 128,
    ...over,
  });

  test('a fader of another desk scales a route, another switches it, and a moved one is learnt', async () => {
    await put('route', route('h', [input(sacn(321))], artnet(42)));
    await put('control', control('m', 1, {}));
    await put('control', control('s', 2, { does: 'switch' }));
    const faders = await desk(320, { 1: 255, 2: 0 }, 8);
    await desk(321, { 1: 200 });
    await hot(true);
    await eventually(live, ({ controls }) => controls.every(({ level }) => level !== null));
    faders.fields.slots = levels({ 1: 128, 2: 255 });
    await eventually(
      () => last(42)?.[0],
      (level) => level === 100,
    );
    expect((await routeNow('h'))?.by).toBe('a channel of the input map');
    const learning = server.request('POST', '/api/routes/learn');
    // Learning looks for a second at what moves anyway before it waits for a hand.
    await new Promise((done) => setTimeout(done, 1800));
    faders.fields.slots = levels({ 1: 128, 2: 255, 7: 90 });
    expect((await learning).body as LearnReply).toEqual({ wire: sacn(320), channel: 7, level: 90 });
    faders.fields.slots = levels({ 1: 128, 2: 0 });
    await eventually(
      () => routeNow('h'),
      (one) => one?.running === false,
    );
    await hot(false);
  });

  test('only a route is switched', async () => {
    const refused = await put('control', control('x', 3, { does: 'switch', target: { kind: 'universe', number: 1 } }));
    expect([refused.status, (refused.body as Problem).detail]).toEqual([400, 'Only a route is switched on and off.']);
  });
});

test('after a restart a route is off, unless it is marked to come back', async () => {
  await put('route', route('stays', [input(sacn(330))], artnet(50)));
  await put('route', route('comes', [input(sacn(330))], artnet(51), { comesBack: true }));
  await hot(true);
  await run('stays');
  await run('comes');
  await server.stop();
  server = await ServerProcess.start(folder);
  expect((await routeNow('stays'))?.running).toBe(false);
  expect((await routeNow('comes'))?.running).toBe(true);
  expect((await live()).output).toMatchObject({ hot: true, by: 'a route marked to come back' });
  await run('comes', false);
  await hot(false);
  await server.stop();
  server = await ServerProcess.start(folder);
  expect((await live()).output.hot).toBe(false);
});

test('multicast leaves by the interface in use, and a witness in the group hears it', async () => {
  await put('route', route('i', [input(sacn(340))], sacn(341), { delivery: 'multicast', addresses: [] }));
  const levelsHeard: number[] = [];
  const group = await openSocket('0.0.0.0', udpPorts.sacn, (bytes) => {
    const decoded = decodeSacn(bytes);
    if (decoded.ok && decoded.value.kind === 'data' && decoded.value.universe === 341)
      levelsHeard.push(decoded.value.slots[0]!);
  });
  group.addMembership(multicastGroup(341), '127.0.0.1');
  await desk(340, { 1: 123 });
  await hot(true);
  await run('i');
  await eventually(
    () => levelsHeard.at(-1),
    (level) => level === 123,
  );
  await hot(false);
});

const HAS_IPV6 = networkInterfaces()['lo']?.some(({ family }) => family === 'IPv6');
// Some computers have no IPv6 on loopback.
(HAS_IPV6 ? test : test.skip)('a route leaves by IPv6 as well where that is wished', async () => {
  await server.request('PATCH', '/api/settings', { sendIpv6: true });
  await put('route', route('j', [input(sacn(350))], sacn(351), { delivery: 'multicast', addresses: [] }));
  const came: number[] = [];
  const group = createSocket({ type: 'udp6', reuseAddr: true, ipv6Only: true }).on('message', (bytes) => {
    const decoded = decodeSacn(bytes);
    if (decoded.ok && decoded.value.kind === 'data') came.push(decoded.value.slots[0]!);
  });
  await new Promise<void>((done) => group.bind(udpPorts.sacn, '::', done));
  group.addMembership(multicastGroup6(351), '::%lo');
  await desk(350, { 1: 77 });
  await hot(true);
  await run('j');
  // Where loopback carries no IPv6 multicast, as on most Linux, it is said that nothing leaves.
  await eventually(
    async () => ({ level: came.at(-1), trouble: (await live()).trouble }),
    ({ level, trouble }) => level === 77 || trouble.includes('nothing leaves by IPv6'),
  );
  await server.request('PATCH', '/api/settings', { sendIpv6: false });
  await hot(false);
  group.close();
});
