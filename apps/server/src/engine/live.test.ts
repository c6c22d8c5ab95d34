/** The engine on real sockets: what is sent on loopback is heard, merged, shown, and answered. */
import { createSocket } from 'node:dgram';
import { networkInterfaces } from 'node:os';
import { holderOf } from '../bridge/holder';
import WebSocket from 'ws';
import { multicastGroup, wireKey } from '@taxiarch/core/base/address';
import {
  type ArtDmx,
  ArtNet,
  blankPollReply,
  decodeArtNet,
  decodePollReply,
  encodeDmx,
  encodePoll,
  encodePollReply,
  portsOf,
} from '@taxiarch/core/protocol/artnet';
import {
  decodeFrame,
  encodeLevelsFrame,
  type FeedText,
  type LiveReport,
  type OutputReport,
  type Problem,
  type UniverseFrame,
} from '@taxiarch/core/whole/contract';
import { Sacn, decodeSacn, encodeData, encodeDiscovery, type SacnData } from '@taxiarch/core/protocol/sacn';
import { Sender, closeSockets, levelsFrom, openSocket, stopSenders } from '../testing/wire';
import { ServerProcess, eventually, newFolder, removeFolder, udpPorts } from '../testing/serverProcess';

jest.setTimeout(180_000);

const folder = newFolder();
let server: ServerProcess;

afterEach(stopSenders);
beforeAll(async () => (server = await ServerProcess.start(folder)));
afterAll(async () => {
  closeSockets();
  await server.stop();
  removeFolder(folder);
});

const live = () => server.get<LiveReport>('/api/live');
const universeOf = async (key: number) => (await live()).universes.find((one) => one.key === key);

/** A client of the feed. */
class Client {
  readonly frames: UniverseFrame[] = [];
  readonly texts: FeedText[] = [];
  private constructor(readonly socket: WebSocket) {
    socket.on('message', (data, binary) => {
      if (!binary) this.texts.push(JSON.parse(String(data)) as FeedText);
      else {
        const frame = decodeFrame(new Uint8Array(data as Buffer));
        if (frame?.kind === 'universe') this.frames.push(frame);
      }
    });
  }
  static async open(id: string): Promise<Client> {
    const socket = new WebSocket(`ws://127.0.0.1:${server.port}/feed?client=${id}`);
    const client = new Client(socket);
    await new Promise((done) => socket.once('open', done));
    return client;
  }
  last(): UniverseFrame | undefined {
    return this.frames[this.frames.length - 1];
  }
}

const hot = (on: boolean) => server.request('POST', '/api/output/hot', { hot: on, by: 'Mara' });
const take = (client: string, slots: Record<string, number | null>, stay = false) =>
  server.request('POST', '/api/output/take', { client, by: client, slots, stay });

test('a stream is heard, named, accounted for, and lost 2.5 s after its last packet', async () => {
  const socket = await openSocket('127.0.0.1', 0);
  const sender = new Sender(socket, { universe: 2, sourceName: 'Bridge desk', priority: 120 }).start();
  const key = wireKey({ protocol: 'sacn', number: 2 });
  const heard = await eventually(
    () => universeOf(key),
    (one) => (one?.streams[0]?.rate1 ?? 0) > 30,
  );
  expect(heard).toMatchObject({
    show: 2,
    state: 'steady',
    streams: [{ name: 'Bridge desk', priority: 120, missing: 0, lost: false }],
  });
  sender.stop();
  const stopped = Date.now();
  const lost = await eventually(
    () => universeOf(key),
    (one) => one?.streams[0]?.lost === true,
  );
  expect(Date.now() - stopped).toBeGreaterThan(2300);
  expect(lost?.state).toBe('silent');
});

test('a stream that is not planned is found by universe discovery and is a stray', async () => {
  const socket = await openSocket('127.0.0.1', 0);
  const cid = new Uint8Array(16).fill(5);
  const page = encodeDiscovery({ cid, sourceName: 'Porthole', page: 0, lastPage: 0, universes: [777] });
  socket.send(page, udpPorts.sacn, multicastGroup(Sacn.E131_DISCOVERY_UNIVERSE));
  const sender = new Sender(socket, { universe: 777, sourceName: 'Porthole', cid }).start();
  const key = wireKey({ protocol: 'sacn', number: 777 });
  expect(
    await eventually(
      () => universeOf(key),
      (one) => one !== undefined,
    ),
  ).toMatchObject({ show: null, state: 'stray' });
  sender.send({ terminated: true });
  sender.stop();
  await eventually(
    () => universeOf(key),
    (one) => one === undefined,
    2500,
  );
});

const HAS_IPV6 = Object.values(networkInterfaces()).some((all) => all?.some(({ family }) => family === 'IPv6'));
// Some computers have no IPv6 at all.
(HAS_IPV6 ? test : test.skip)('sACN that comes by IPv6 is heard', async () => {
  const socket = createSocket('udp6');
  const bound = new Promise((done) => socket.once('listening', done));
  socket.bind(0, '::1');
  await bound;
  const bytes = encodeData(
    levelsFrom({
      cid: new Uint8Array(16).fill(6),
      sourceName: 'Sixth desk',
      universe: 778,
      slots: Uint8Array.of(1, 2),
    }),
  );
  socket.send(bytes, udpPorts.sacn, '::1');
  const heard = await eventually(
    () => universeOf(wireKey({ protocol: 'sacn', number: 778 })),
    (one) => one !== undefined,
  );
  expect(heard!.streams).toMatchObject([{ name: 'Sixth desk', address: '::1', ipv6: true }]);
  socket.close();
});

test('the feed brings merged levels with their owners, sixty times a second at most', async () => {
  const socket = await openSocket('127.0.0.1', 0);
  const key = wireKey({ protocol: 'sacn', number: 3 });
  const low = new Sender(socket, { universe: 3, slots: Uint8Array.from({ length: 512 }, () => 50) }).start();
  const high = new Sender(socket, {
    universe: 3,
    cid: new Uint8Array(16).fill(8),
    priority: 150,
    slots: Uint8Array.of(200),
  }).start();
  const client = await Client.open('watcher');
  client.socket.send(JSON.stringify({ type: 'watch', keys: [key] }));
  await eventually(
    () => client.last(),
    (frame) => frame?.values[0] === 200 && frame.values[1] === 50,
  );
  expect(client.last()!.owners[0]).not.toBe(client.last()!.owners[1]);
  const before = client.frames.length;
  const moving = setInterval(
    () => (low.fields.slots = Uint8Array.from({ length: 512 }, () => Math.floor(Math.random() * 256))),
    10,
  );
  // A rate is counted over a time.
  await new Promise((done) => setTimeout(done, 1000));
  clearInterval(moving);
  const rate = client.frames.length - before;
  expect(rate).toBeGreaterThan(10);
  expect(rate).toBeLessThanOrEqual(62);
  low.stop();
  high.stop();
  await eventually(
    () => client.last(),
    (frame) => frame!.values[1] === 0,
    5000,
  );
  client.socket.close();
});

test('a universe that is only watched is joined and heard, with a name of 64 bytes and reserved bits set', async () => {
  const universe = 31_234;
  const key = wireKey({ protocol: 'sacn', number: universe });
  const bytes = encodeData(
    levelsFrom({ cid: new Uint8Array(16).fill(9), sourceName: 'x', universe, slots: Uint8Array.of(77) }),
  );
  // ANSI E1.31-2018, 6.2.2 and 6.2.6: no NUL at the end of the name; options that nobody has given a meaning yet.
  bytes.fill(0x4e, 44, 108);
  bytes[112] = 0x1f;
  const socket = await openSocket('127.0.0.1', 0);
  socket.setMulticastInterface('127.0.0.1');
  let sequence = 0;
  const sending = setInterval(() => {
    bytes[111] = sequence = (sequence + 1) & 0xff;
    socket.send(bytes, udpPorts.sacn, `239.255.${universe >> 8}.${universe & 255}`);
  }, 50);
  const client = await Client.open('curious');
  client.socket.send(JSON.stringify({ type: 'watch', keys: [key] }));
  await eventually(
    () => client.last()?.values[0],
    (value) => value === 77,
  );
  const heard = await eventually(
    () => universeOf(key),
    (one) => one !== undefined,
  );
  expect(heard!.streams).toMatchObject([{ name: 'N'.repeat(64), repeats: 0 }]);
  clearInterval(sending);
  client.socket.close();
});

test('a feed request that makes no sense ends that feed only', async () => {
  const client = await Client.open('confused');
  const closed = new Promise<number>((done) => client.socket.once('close', done));
  client.socket.send('{"type":"sing"}');
  expect(await closed).toBe(1008);
  expect((await server.request('GET', '/api/live')).status).toBe(200);
});

test('an edit reaches every client', async () => {
  const client = await Client.open('reader');
  await server.request('POST', '/api/edits', {
    author: 'Ivo',
    sentence: 'Added a place',
    changes: [{ kind: 'place', id: 'p', rev: null, after: { id: 'p', rev: 0, name: 'Chain locker', order: 60 } }],
  });
  await eventually(
    () => client.texts.find((text) => text.type === 'edit'),
    (text) => text !== undefined,
  );
  client.socket.close();
});

describe('output', () => {
  const packets: SacnData[] = [];
  let mine: (data: SacnData) => boolean;

  beforeAll(async () => {
    const socket = await openSocket('0.0.0.0', udpPorts.sacn, (bytes) => {
      const decoded = decodeSacn(bytes);
      if (decoded.ok && decoded.value.kind === 'data' && mine(decoded.value)) packets.push(decoded.value);
    });
    for (const universe of [5, 6]) socket.addMembership(multicastGroup(universe), '127.0.0.1');
  });
  beforeEach(() => {
    packets.length = 0;
    mine = (data) => data.sourceName === 'Taxiarch';
  });
  afterEach(async () => void (await hot(false)));

  const levels = () => packets.filter((one) => one.startCode === Sacn.START_CODE_NULL);
  const priorities = () => packets.filter((one) => one.startCode === Sacn.START_CODE_SLOT_PRIORITY);

  test('while safe nothing is taken and nothing leaves', async () => {
    const reply = await take('a', { '5/1': 255 });
    expect([reply.status, (reply.body as Problem).detail]).toEqual([
      409,
      'Taxiarch is safe and sends nothing. Make it hot first.',
    ]);
    await new Promise((done) => setTimeout(done, 300));
    expect(packets).toEqual([]);
  });

  test('taken slots are sent with their own priority, the others at what others send, and end terminated three times', async () => {
    const socket = await openSocket('127.0.0.1', 0);
    const desk = new Sender(socket, { universe: 5, slots: new Uint8Array(512).fill(77) }).start();
    await eventually(
      () => universeOf(5),
      (one) => one?.streams.some((stream) => !stream.lost) ?? false,
    );
    await hot(true);
    const report = (await take('a', { '5/2-3': 200 }, true)).body as OutputReport;
    expect(report).toMatchObject({ hot: true, holds: [{ by: 'a', universe: 5, runs: [[2, 3]] }] });
    await eventually(
      () => levels().length,
      (count) => count > 2,
    );
    expect([...levels()[0]!.slots.subarray(0, 4)]).toEqual([77, 200, 200, 77]);
    expect([...priorities()[0]!.slots.subarray(0, 4)]).toEqual([0, 150, 150, 0]);
    expect(packets[0]!.startCode).toBe(Sacn.START_CODE_SLOT_PRIORITY);
    await server.request('POST', '/api/output/give-back', { client: 'a', slots: ['5/2'] });
    await eventually(
      () => priorities().at(-1)!.slots[1],
      (priority) => priority === 0,
    );
    await server.request('POST', '/api/output/give-back', {});
    await eventually(
      () => packets.filter((one) => one.terminated).length,
      (count) => count === 3,
    );
    desk.stop();
  });

  test('taken without a level, a slot begins where it is and is never darker on the way', async () => {
    const socket = await openSocket('127.0.0.1', 0);
    const desk = new Sender(socket, { universe: 5, slots: new Uint8Array(512).fill(140) }).start();
    const client = await Client.open('looker');
    client.socket.send(JSON.stringify({ type: 'watch', keys: [5] }));
    await eventually(
      () => client.last()?.values[0],
      (value) => value === 140,
    );
    client.socket.terminate();
    await hot(true);
    expect((await take('a', { '5/1-3': null }, true)).status).toBe(200);
    await eventually(
      () => levels().length,
      (count) => count > 3,
    );
    expect(new Set(levels().flatMap(({ slots }) => [...slots.subarray(0, 4)]))).toEqual(new Set([140]));
    // Taken again by the same, it stays where it was put.
    await take('a', { '5/1': 20 }, true);
    await take('a', { '5/1': null }, true);
    packets.length = 0;
    await eventually(
      () => levels().length,
      (count) => count > 1,
    );
    expect(levels().at(-1)!.slots[0]).toBe(20);
    desk.stop();
  });

  test('while levels move without a pause, receivers are told every second which slots are ours', async () => {
    const socket = await openSocket('127.0.0.1', 0);
    const desk = new Sender(socket, { universe: 5, slots: new Uint8Array(512).fill(77) }).start();
    const client = await Client.open('mover');
    client.socket.send(JSON.stringify({ type: 'watch', keys: [5] }));
    await hot(true);
    await take('mover', { '5/2': 200 });
    const began = Date.now();
    let level = 0;
    const moving = setInterval(() => client.socket.send(encodeLevelsFrame(5, [[1, (level += 1) & 0xff]])), 20);
    packets.length = 0;
    // Longer than a receiver waits for priorities before it takes all 512 slots for ours.
    await eventually(
      () => Date.now() - began,
      (passed) => passed > 3500,
    );
    clearInterval(moving);
    expect(levels().length).toBeGreaterThan(50);
    expect(priorities().length).toBeGreaterThanOrEqual(3);
    const mark = (await universeOf(5))!.streams.find(({ own }) => own)!.mark;
    const { owners } = client.last()!;
    expect([owners[0] === mark, owners[1] === mark, owners[2] === mark]).toEqual([false, true, false]);
    client.socket.terminate();
    desk.stop();
  });

  test('when nothing changes the rate falls to a keep-alive', async () => {
    await hot(true);
    const arrived: number[] = [];
    const seen = mine;
    mine = (data) => {
      if (data.universe === 6 && data.startCode === Sacn.START_CODE_NULL && seen(data)) arrived.push(Date.now());
      return seen(data);
    };
    await take('a', { '6/1': 10 }, true);
    // The change and its repeats, then one in about 0.9 s: four of them take longer than a receiver waits.
    await eventually(
      () => arrived.at(-1)! - arrived.at(-4)!,
      (passed) => passed > 2000,
    );
    // And never so seldom that a receiver gives us up.
    const gaps = arrived.slice(1).map((at, i) => at - arrived[i]!);
    expect(Math.max(...gaps)).toBeLessThan(Sacn.E131_NETWORK_DATA_LOSS_TIMEOUT_MS);
  });

  test('a slot of one client is refused to another, and its levels too', async () => {
    await hot(true);
    await take('a', { '6/1': 10 }, true);
    const refused = await take('b', { '6/1-2': 99 }, true);
    expect((refused.body as Problem).detail).toMatch(/^6\/1 is taken by a already/);
    const key = wireKey({ protocol: 'sacn', number: 6 });
    const [a, b] = [await Client.open('a'), await Client.open('b')];
    b.socket.send(encodeLevelsFrame(key, [[0, 99]]));
    a.socket.send(
      encodeLevelsFrame(key, [
        [0, 42],
        [7, 42],
      ]),
    );
    await eventually(
      () => levels().at(-1)?.slots[0],
      (level) => level === 42,
    );
    expect(levels().some((one) => one.slots[0] === 99 || one.slots[7] === 42)).toBe(false);
    a.socket.close();
    b.socket.close();
  });

  test('five seconds after a person has gone, what they took is given back, unless it was to stay', async () => {
    await hot(true);
    const client = await Client.open('leaver');
    await take('leaver', { '6/1': 10 });
    await take('stayer', { '6/2': 10 }, true);
    client.socket.close();
    const left = Date.now();
    const holds = () =>
      server.get<OutputReport>('/api/output').then((output) => output.holds.map(({ holder }) => holder));
    expect(await holds()).toContain(holderOf('leaver'));
    await eventually(holds, (who) => !who.includes(holderOf('leaver')));
    expect(Date.now() - left).toBeGreaterThan(4500);
    expect(await holds()).toEqual([holderOf('stayer')]);
  });

  test('a client that comes back in time keeps what it took', async () => {
    await hot(true);
    const first = await Client.open('reloader');
    await take('reloader', { '6/1': 10 });
    first.socket.close();
    // Away for a second, well within the five that it is given.
    await new Promise((done) => setTimeout(done, 1000));
    const second = await Client.open('reloader');
    // That something does not happen shows only after the time in which it would.
    await new Promise((done) => setTimeout(done, 5500));
    expect((await server.get<OutputReport>('/api/output')).holds).toHaveLength(1);
    second.socket.close();
  });

  test.each([
    [{ '99/1': 1 }, 422, /Universe 99 is not in the show/],
    [{ '5/600': 1 }, 400, /run from 1 to 512/],
    [{ '5/1': 256 }, 400, /end at 255/],
    [{}, 400, /at least one slot/],
  ])('bad take %# is a sentence', async (slots, status, sentence) => {
    await hot(true);
    const reply = await take('a', slots as Record<string, number>);
    expect([reply.status, (reply.body as Problem).detail]).toEqual([status, expect.stringMatching(sentence)]);
  });

  test('Art-Net goes to the nodes that list the universe, with the others’ levels around it', async () => {
    const received: ArtDmx[] = [];
    const node = await openSocket('127.0.0.77', udpPorts.artnet, (bytes) => {
      const decoded = decodeArtNet(bytes);
      if (decoded.ok && decoded.value.kind === 'dmx') received.push(decoded.value);
    });
    const port = { type: ArtNet.PORT_CAN_OUTPUT, goodInput: 0, goodOutputA: 0, goodOutputB: 0, swIn: 0, swOut: 8 };
    const page = {
      ...blankPollReply('127.0.0.77', new Uint8Array(6)),
      portName: 'Test node',
      portCount: 1,
      ports: [port],
    };
    const answer = setInterval(() => node.send(encodePollReply(page), udpPorts.artnet, '127.0.0.1'), 500);
    const desk = await openSocket('127.0.0.21', 0);
    const sending = setInterval(
      () =>
        desk.send(
          encodeDmx({ sequence: 0, physical: 0, portAddress: 8, slots: new Uint8Array(512).fill(33) }),
          udpPorts.artnet,
          '127.0.0.1',
        ),
      25,
    );
    await eventually(live, ({ nodes }) => nodes.some((one) => one.shortName === 'Test node'));
    await eventually(
      () => universeOf(wireKey({ protocol: 'artnet', number: 8 })),
      (one) => one?.state === 'steady',
    );
    expect(received).toEqual([]);
    await hot(true);
    await take('a', { '9/2': 250 }, true);
    await eventually(
      () => received.length,
      (count) => count > 2,
    );
    expect([...received.at(-1)!.slots.subarray(0, 3)]).toEqual([33, 250, 33]);
    // Art-Net cannot say which slots are ours; we know, and show no other as ours.
    const key = wireKey({ protocol: 'artnet', number: 8 });
    const client = await Client.open('looker');
    client.socket.send(JSON.stringify({ type: 'watch', keys: [key] }));
    await eventually(
      () => client.last()?.values[1],
      (value) => value === 250,
    );
    const { mark } = (await eventually(
      async () => (await universeOf(key))?.streams.find(({ own }) => own),
      (one) => one !== undefined,
    ))!;
    expect([...client.last()!.owners.subarray(0, 3)].map((owner) => owner === mark)).toEqual([false, true, false]);
    client.socket.terminate();
    await server.request('POST', '/api/output/give-back', {});
    await eventually(() => received.at(-1)!.slots.every((level) => level === 0), Boolean);
    clearInterval(answer);
    clearInterval(sending);
    await eventually(live, ({ nodes }) => nodes.some((one) => one.shortName === 'Test node' && one.gone));
  });
});

test('whoever polls is told what is planned and what is opened, as outputs of a node; none when that is switched off', async () => {
  const told = new Set<number>();
  const desk = await openSocket('127.0.0.78', udpPorts.artnet, (bytes) => {
    const read = decodePollReply(bytes);
    if (!read.ok || read.value.ip !== '127.0.0.1') return;
    for (const { portAddress } of portsOf(read.value)) told.add(portAddress);
  });
  const poll = () => desk.send(encodePoll(), udpPorts.artnet, '127.0.0.1');
  const heard = (wanted: readonly number[]) =>
    eventually(
      () => {
        poll();
        return [...told].sort((a, b) => a - b);
      },
      (ports) => ports.join() === wanted.join(),
    );
  const planned = Array.from({ length: 30 }, (_, i) => 8 + i);
  await heard(planned);
  const client = await Client.open('opener');
  client.socket.send(JSON.stringify({ type: 'watch', keys: [wireKey({ protocol: 'artnet', number: 0x1234 })] }));
  await heard([...planned, 0x1234]);
  client.socket.terminate();
  await server.request('PATCH', '/api/settings', { listed: false });
  await eventually(live, ({ listed }) => listed.length === 0);
  await server.request('PATCH', '/api/settings', { listed: true });
  await eventually(live, ({ listed }) => listed.length === planned.length);
});

test('packets that are none of ours are counted by reason and do no harm', async () => {
  const socket = await openSocket('127.0.0.1', 0);
  socket.send(Buffer.from('hello'), udpPorts.sacn, '127.0.0.1');
  socket.send(Buffer.alloc(40), udpPorts.artnet, '127.0.0.1');
  const { rejected } = await eventually(live, (report) => Object.keys(report.rejected).length > 1);
  expect(rejected).toMatchObject({ 'too-short': expect.any(Number), 'not-artnet': expect.any(Number) });
});

test('more universes than are kept is said, and those that are kept go on', async () => {
  const socket = await openSocket('127.0.0.1', 0);
  const sender = new Sender(socket, { universe: 2, sourceName: 'Going on' }).start();
  const slots = new Uint8Array(2);
  for (let portAddress = 0; portAddress < 0x2000; portAddress += 1) {
    socket.send(encodeDmx({ sequence: 0, physical: 0, portAddress, slots }), udpPorts.artnet, '127.0.0.1');
    if (portAddress % 200 === 0) await new Promise(setImmediate);
  }
  const { notices, rejected } = await eventually(live, (report) =>
    report.notices.some(({ id }) => id === 'too-many-universes'),
  );
  expect(notices.map(({ sentence }) => sentence)).toContain(
    'More than 7680 universes are heard or planned: what comes on further ones is not read.',
  );
  // A busy computer loses some of so many packets before they are read; of those that are read none is kept in silence.
  expect(rejected['too-many-universes']).toBeGreaterThan(0);
  // With so many universes a report on all of them takes some seconds.
  const going = await eventually(
    async () =>
      (await universeOf(wireKey({ protocol: 'sacn', number: 2 })))?.streams.find(({ name }) => name === 'Going on'),
    (stream) => stream !== undefined,
  );
  expect(going).toMatchObject({ lost: false });
  sender.stop();
});
