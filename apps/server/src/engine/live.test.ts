/** The engine on real sockets: what is sent on loopback is heard, merged, shown, and answered. */
import { createSocket } from 'node:dgram';
import { networkInterfaces } from 'node:os';
import { multicastGroup, wireKey } from '@taxiarch/core/base/address';
import { decodePollReply, encodeDmx, encodePoll, portsOf } from '@taxiarch/core/protocol/artnet';
import { Sacn, encodeData, encodeDiscovery } from '@taxiarch/core/protocol/sacn';
import { Sender, levelsFrom, openSocket } from '../testing/wire';
import { eventually, udpPorts } from '../testing/serverProcess';

import { Client, live, runServer, server, universeOf } from '../testing/liveServer';

runServer();

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
  expect((await server().request('GET', '/api/live')).status).toBe(200);
});

test('an edit reaches every client', async () => {
  const client = await Client.open('reader');
  await server().request('POST', '/api/edits', {
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
  await server().request('PATCH', '/api/settings', { listed: false });
  await eventually(live, ({ listed }) => listed.length === 0);
  await server().request('PATCH', '/api/settings', { listed: true });
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
