/** The stand-ins as a network meets them: packets in, packets out, and the front panel. */
import { spawn, type ChildProcess } from 'node:child_process';
import { createSocket, type Socket } from 'node:dgram';
import { resolve } from 'node:path';
import { multicastGroup } from '@taxiarch/core/address';
import { decodeArtNet, encodeDmx, encodePoll, portsOf, type ArtPollReply } from '@taxiarch/core/artnet';
import { decodeSacn, encodeData, type SacnData } from '@taxiarch/core/sacn';

jest.setTimeout(40_000);

const ports = { sacn: 17_001, artnet: 17_002, panel: 17_003 };
const sockets: Socket[] = [];
let standins: ChildProcess;

function open(address: string, port: number, receive?: (bytes: Buffer) => void): Promise<Socket> {
  return new Promise((done) => {
    const socket = createSocket({ type: 'udp4', reuseAddr: true });
    if (receive) socket.on('message', receive);
    sockets.push(socket);
    socket.bind(port, address, () => {
      socket.setMulticastInterface('127.0.0.1');
      socket.setBroadcast(true);
      done(socket);
    });
  });
}

const start = (): ChildProcess =>
  spawn(process.execPath, [
    resolve(__dirname, '../../../.build/standins/main.mjs'),
    ...Object.entries(ports).flatMap(([name, port]) => [`--${name}-port`, String(port)]),
  ]);

beforeAll(async () => {
  standins = start();
  await new Promise((done) => standins.stdout!.once('data', done));
});
afterAll(async () => {
  sockets.forEach((socket) => socket.close());
  const ended = new Promise((done) => standins.once('exit', done));
  standins.kill('SIGTERM');
  await ended;
});

interface PanelPort {
  readonly output: readonly number[];
  readonly sources: readonly { readonly name: string; readonly address: string; readonly protocol: string }[];
}
const panel = async (host: number, knob: string, given?: object) => {
  const response = await fetch(
    `http://127.0.0.${host}:${ports.panel}/${knob}`,
    given && { method: 'POST', body: JSON.stringify(given) },
  );
  return { status: response.status, body: (await response.json()) as unknown };
};
const portOf = async (host: number, port: number): Promise<PanelPort> =>
  ((await panel(host, 'ports')).body as PanelPort[])[port - 1]!;

async function until<T>(ask: () => Promise<T>, met: (answer: T) => boolean, ms = 6000): Promise<T> {
  const end = Date.now() + ms;
  for (;;) {
    const answer = await ask();
    if (met(answer)) return answer;
    if (Date.now() > end) throw new Error(`It did not come to pass. Last: ${JSON.stringify(answer).slice(0, 600)}`);
    await new Promise((done) => setTimeout(done, 50));
  }
}

const levels = (first: number, over: Partial<SacnData> = {}): Uint8Array =>
  encodeData({
    cid: new Uint8Array(16).fill(3),
    sourceName: 'Test desk',
    priority: 150,
    syncAddress: 0,
    sequence: 1,
    preview: false,
    terminated: false,
    forceSync: false,
    universe: 1,
    startCode: 0,
    slots: Uint8Array.of(first, first),
    ...over,
  });

test('nodes answer a broadcast poll with a page for every four ports', async () => {
  const pages: ArtPollReply[] = [];
  const socket = await open('127.0.0.90', ports.artnet, (bytes) => {
    const decoded = decodeArtNet(bytes);
    if (decoded.ok && decoded.message.kind === 'pollReply') pages.push(decoded.message);
  });
  socket.send(encodePoll(), ports.artnet, '127.255.255.255');
  await until(
    async () => pages.length,
    (count) => count >= 5,
  );
  const carDeck = pages.filter((page) => page.portName === 'Car deck node').sort((a, b) => a.bindIndex - b.bindIndex);
  expect(carDeck.map(({ bindIndex, portCount }) => [bindIndex, portCount])).toEqual([
    [1, 4],
    [2, 4],
  ]);
  expect(carDeck.flatMap(portsOf).map(({ portAddress }) => portAddress)).toEqual([1, 2, 3, 4, 6, 7, 12, 13]);
  expect(pages.find((page) => page.portName === 'Bridge desk')?.portCount).toBe(0);
});

test('the desk’s sACN and Art-Net both leave the nodes’ ports', async () => {
  expect(
    await until(
      () => portOf(31, 1),
      ({ sources }) => sources.length > 0,
    ),
  ).toMatchObject({ sources: [{ name: 'Bridge desk', protocol: 'sacn' }] });
  await until(
    () => portOf(32, 2),
    ({ sources, output }) => sources[0]?.protocol === 'artnet' && output.some((level) => level > 0),
  );
});

test('a fader held at the desk arrives, and goes when it is let go', async () => {
  await panel(21, 'fader', { universe: 1, channel: 500, level: 211 });
  await until(
    () => portOf(31, 1),
    ({ output }) => output[499] === 211,
  );
  await panel(21, 'fader', { universe: 1, channel: 500, level: null });
  expect((await panel(21, 'fader', { universe: 99, channel: 1, level: 5 })).status).toBe(400);
  expect((await panel(21, 'ghost')).status).toBe(404);
});

test('a port merges two sources by priority, lets no third in, and drops one that ends', async () => {
  const socket = await open('127.0.0.91', 0);
  const send = (bytes: Uint8Array) => socket.send(bytes, ports.sacn, multicastGroup(1));
  let sequence = 0;
  const sending = setInterval(() => {
    sequence += 1;
    send(levels(222, { sequence }));
  }, 25);
  await until(
    () => portOf(31, 1),
    ({ output, sources }) => output[0] === 222 && sources.length === 2,
  );
  socket.send(
    encodeDmx({ sequence: 0, physical: 0, portAddress: 0, slots: new Uint8Array(512).fill(255) }),
    ports.artnet,
    '127.0.0.31',
  );
  await new Promise((done) => setTimeout(done, 200));
  expect((await portOf(31, 1)).sources).toHaveLength(2);
  clearInterval(sending);
  send(levels(222, { sequence: sequence + 1, terminated: true }));
  await until(
    () => portOf(31, 1),
    ({ sources }) => sources.length === 1,
  );
});

test('preview data never leaves a port', async () => {
  const socket = await open('127.0.0.92', 0);
  for (let sequence = 1; sequence < 6; sequence += 1)
    socket.send(
      levels(199, { cid: new Uint8Array(16).fill(4), sequence, preview: true }),
      ports.sacn,
      multicastGroup(1),
    );
  await new Promise((done) => setTimeout(done, 300));
  expect((await portOf(31, 1)).sources).toHaveLength(1);
});

test('the desk stops with three packets that say so; the port holds its last look', async () => {
  let ends = 0;
  const socket = await open('0.0.0.0', ports.sacn, (bytes) => {
    const decoded = decodeSacn(bytes);
    if (decoded.ok && decoded.message.kind === 'data' && decoded.message.universe === 2 && decoded.message.terminated)
      ends += 1;
  });
  socket.addMembership(multicastGroup(2), '127.0.0.1');
  await panel(21, 'stop', {});
  await until(
    async () => ends,
    (count) => count === 3,
  );
  const held = await until(
    () => portOf(33, 1),
    ({ sources }) => sources.length === 0,
  );
  expect(held.output.some((level) => level > 0)).toBe(true);
  await panel(21, 'start', {});
  await until(
    () => portOf(33, 1),
    ({ sources }) => sources.length === 1,
  );
});

test('a second set of stand-ins ends with a sentence', async () => {
  const second = start();
  let said = '';
  second.stderr!.on('data', (text) => (said += String(text)));
  expect(await new Promise((done) => second.once('exit', done))).toBe(1);
  expect(said).toMatch(/another set of them runs already.*--no-standins/);
});
