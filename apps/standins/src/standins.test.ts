/** The stand-ins as a network meets them: packets in, packets out, and the front panel. */
import { spawn, type ChildProcess } from 'node:child_process';
import { createSocket, type Socket } from 'node:dgram';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { multicastGroup } from '@taxiarch/core/base/address';
import {
  ArtNet,
  decodeArtNet,
  encodeAddress,
  encodeIpProg,
  encodePoll,
  POLL_REPLY_ON_CHANGE,
  portsOf,
  type ArtNetMessage,
  type ArtPollReply,
  type DevicePort,
} from '@taxiarch/core/protocol/artnet';
import type { StandIn } from '@taxiarch/core/whole/contract';
import { decodeSacn, encodeData, type SacnData } from '@taxiarch/core/protocol/sacn';

jest.setTimeout(180_000);

const ports = { sacn: 17_001, artnet: 17_002, panel: 17_003 };
const sockets: Socket[] = [];
const folder = mkdtempSync(join(tmpdir(), 'taxiarch-bench-'));
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
    '--data',
    folder,
  ]);

async function begin(): Promise<void> {
  standins = start();
  await new Promise((done) => standins.stdout!.once('data', done));
}

async function end(): Promise<void> {
  const ended = new Promise((done) => standins.once('exit', done));
  standins.kill('SIGTERM');
  await ended;
}

beforeAll(begin);
afterAll(async () => {
  sockets.forEach((socket) => socket.close());
  await end();
  rmSync(folder, { recursive: true, force: true });
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
    if (decoded.ok && decoded.value.kind === 'pollReply') pages.push(decoded.value);
  });
  socket.send(encodePoll(), ports.artnet, '127.255.255.255');
  const of = (name: string) => pages.filter((page) => page.portName === name);
  await until(
    async () => [of('Car deck node').length, of('Bridge desk').length],
    ([nodes, desks]) => nodes! >= 2 && desks! >= 1,
  );
  const carDeck = of('Car deck node').sort((a, b) => a.bindIndex - b.bindIndex);
  expect(carDeck.map(({ bindIndex, portCount }) => [bindIndex, portCount])).toEqual([
    [1, 4],
    [2, 4],
  ]);
  expect(carDeck.flatMap(portsOf).map(({ portAddress }) => portAddress)).toEqual([2, 3, 4, 5, 7, 8]);
  expect(of('Bridge desk')[0]?.portCount).toBe(0);
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
  send(levels(255, { cid: new Uint8Array(16).fill(5), sourceName: 'Third' }));
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
    if (decoded.ok && decoded.value.kind === 'data' && decoded.value.universe === 2 && decoded.value.terminated)
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

describe('a node set over the network', () => {
  const heard: { message: ArtNetMessage; from: string }[] = [];
  let socket: Socket;
  beforeAll(async () => {
    socket = await open('127.0.0.93', ports.artnet);
    socket.on('message', (bytes, { address }) => {
      const decoded = decodeArtNet(bytes);
      if (decoded.ok) heard.push({ message: decoded.value, from: address });
    });
  });
  beforeEach(() => heard.splice(0));

  const tell = (bytes: Uint8Array, host: number) => socket.send(bytes, ports.artnet, `127.0.0.${host}`);
  /** The first page with which a host answers, as soon as it says what is asked. */
  const says = (host: number, met: (page: ArtPollReply) => boolean) =>
    until(
      async () =>
        heard.flatMap(({ message, from }) =>
          from === `127.0.0.${host}` && message.kind === 'pollReply' ? [message] : [],
        ),
      (pages) => pages.some(met),
    );

  test('Address sets names, universes, merge and loss of signal, and is answered', async () => {
    tell(encodeAddress({ portName: 'Deck A', netSwitch: 0x80, subSwitch: 0x80, swOut: [0x89, 0x7f, 0x7f, 0x7f] }), 33);
    tell(encodeAddress({ command: ArtNet.AcMergeLtp + 1 }), 33);
    tell(encodeAddress({ command: ArtNet.AcFailFull }), 33);
    tell(encodeAddress({ command: ArtNet.AcLedLocate }), 33);
    await says(33, (page) => {
      const [one, two] = portsOf(page);
      return (
        page.portName === 'Deck A' &&
        one?.portAddress === 9 &&
        two?.ltp === true &&
        (page.status3 & 0xc0) === ArtNet.STATUS3_FAIL_FULL &&
        (page.status1 & 0xc0) === 0x40
      );
    });
  });

  const port = (at: number, met: (port: DevicePort) => boolean) => (page: ArtPollReply) => {
    const found = page.bindIndex === 1 && portsOf(page).find(({ index }) => index === at);
    return found ? met(found) : false;
  };
  const indicators = (bits: number) => (page: ArtPollReply) => (page.status1 & 0xc0) === bits;
  const fails = (bits: number) => (page: ArtPollReply) => (page.status3 & 0xc0) === bits;

  test.each([
    ['LED mute', ArtNet.AcLedMute, indicators(0x80)],
    ['LED locate', ArtNet.AcLedLocate, indicators(0x40)],
    ['LED normal', ArtNet.AcLedNormal, indicators(0xc0)],
    ['fail to zero', ArtNet.AcFailZero, fails(ArtNet.STATUS3_FAIL_ZERO)],
    ['fail to full', ArtNet.AcFailFull, fails(ArtNet.STATUS3_FAIL_FULL)],
    ['fail to a scene', ArtNet.AcFailScene, fails(ArtNet.STATUS3_FAIL_SCENE)],
    ['fail to hold', ArtNet.AcFailHold, fails(ArtNet.STATUS3_FAIL_HOLD)],
    ['merge LTP', ArtNet.AcMergeLtp + 2, port(2, ({ ltp }) => ltp)],
    ['merge HTP', ArtNet.AcMergeHtp + 2, port(2, ({ ltp }) => !ltp)],
    ['Art-Net', ArtNet.AcArtNetSel + 3, port(3, ({ sacn }) => !sacn)],
    ['sACN', ArtNet.AcAcnSel + 3, port(3, ({ sacn }) => sacn)],
    ['RDM on', ArtNet.AcRdmEnable + 1, port(1, ({ rdm }) => rdm)],
    ['RDM off', ArtNet.AcRdmDisable + 1, port(1, ({ rdm }) => !rdm)],
    ['in', ArtNet.AcDirectionRx + 3, port(3, ({ direction }) => direction === 'in')],
    ['out', ArtNet.AcDirectionTx + 3, port(3, ({ direction }) => direction === 'out')],
  ])('command: %s', async (_, command, met) => {
    tell(encodeAddress({ command }), 33);
    await says(33, met);
  });

  test('a look recorded, and a merge cancelled', async () => {
    await panel(21, 'fader', { universe: 2, channel: 1, level: 200 });
    await until(
      () => portOf(33, 1),
      ({ output }) => output.some((level) => level > 0),
    );
    tell(encodeAddress({ command: ArtNet.AcFailRecord }), 33);
    tell(encodeAddress({ command: ArtNet.AcCancelMerge }), 33);
    await says(33, (page) => page.portName !== '');
    const { ports: kept } = (await panel(33, 'settings')).body as { ports: { look: number[] }[] };
    expect(kept[0]!.look.some((level) => level > 0)).toBe(true);
    expect((await portOf(33, 1)).sources.length).toBeLessThanOrEqual(1);
    await panel(21, 'fader', { universe: 2, channel: 1, level: null });
  });

  test('what was set survives the power', async () => {
    await end();
    await begin();
    tell(encodePoll(), 33);
    await says(33, (page) => page.portName === 'Deck A' && portsOf(page)[0]?.portAddress === 9);
    tell(
      encodeAddress({
        portName: 'Car deck node',
        netSwitch: 0x80,
        subSwitch: 0x80,
        swOut: [0x82, 0x7f, 0x7f, 0x7f],
        command: ArtNet.AcMergeHtp + 1,
      }),
      33,
    );
    tell(encodeAddress({ command: ArtNet.AcFailHold }), 33);
    await says(33, (page) => page.portName === 'Car deck node' && portsOf(page)[0]?.portAddress === 2);
  });

  test('IpProg moves it; it answers at its new address and no more at the old', async () => {
    const command = ArtNet.IPPROG_ENABLE | ArtNet.IPPROG_ADDRESS;
    tell(encodeIpProg({ command, ip: '127.0.0.83' }), 33);
    await until(
      async () => heard.find(({ message }) => message.kind === 'ipProgReply')?.message,
      (reply) => reply?.kind === 'ipProgReply' && reply.ip === '127.0.0.83',
    );
    await until(
      async () => {
        tell(encodePoll(), 83);
        return heard.filter(({ from, message }) => from === '127.0.0.83' && message.kind === 'pollReply').length;
      },
      (count) => count >= 2,
    );
    heard.splice(0);
    tell(encodePoll(), 33);
    await new Promise((done) => setTimeout(done, 150));
    expect(heard.filter(({ from }) => from === '127.0.0.33')).toEqual([]);
    tell(encodeIpProg({ command, ip: '127.0.0.33' }), 83);
    await until(
      async () => {
        tell(encodePoll(), 33);
        return heard.some(({ from, message }) => from === '127.0.0.33' && message.kind === 'pollReply');
      },
      (there) => there,
    );
  });
});

describe('the bench', () => {
  const bench = async (act?: object): Promise<readonly StandIn[]> => {
    const reply = await fetch(
      `http://127.0.0.1:${ports.panel}/${act ? 'handle' : 'boxes'}`,
      act && { method: 'POST', body: JSON.stringify(act) },
    );
    if (!reply.ok) throw new Error(((await reply.json()) as { why: string }).why);
    return (await reply.json()) as readonly StandIn[];
  };
  const box = async (id: string) => (await bench()).find((one) => one.id === id)!;

  test('hands: a desk that leaves a universe out, a node that does not hear one; reset makes all as it was shipped', async () => {
    const names = async () => (await portOf(32, 1)).sources.map(({ name }) => name).sort();
    const both = (all: readonly string[]) => all.join() === 'Bridge desk,Stern desk';
    await until(names, both);
    await bench({ id: 'bridge', mistakes: { silent: [6] } });
    await until(names, (all) => all.join() === 'Stern desk');
    await bench({ id: 'boiler', deaf: { to: ['127.0.0.22'] } });
    await until(names, (all) => all.length === 0);
    await bench({ id: 'boiler', turn: { port: 2, wire: 9 } });
    await bench({ id: 'all', reset: true });
    await until(names, both);
    expect((await box('boiler')).ports[1]).toMatchObject({ wire: 8 });
  });

  test('who asks to be told of changes is told that signal stopped, without asking again', async () => {
    const pages: ArtPollReply[] = [];
    const socket = await open('127.0.0.95', ports.artnet, (bytes) => {
      const decoded = decodeArtNet(bytes);
      if (decoded.ok && decoded.value.kind === 'pollReply' && decoded.value.portName === 'Quay node')
        pages.push(decoded.value);
    });
    const passes = () => portsOf(pages.at(-1)!)[0]?.active;
    socket.send(encodePoll({ flags: POLL_REPLY_ON_CHANGE }), ports.artnet, '127.0.0.37');
    await until(
      async () => pages.length > 0 && passes(),
      (yes) => yes === true,
    );
    await bench({ id: 'gangway', power: false });
    await until(
      async () => passes(),
      (yes) => yes === false,
    );
    await bench({ id: 'all', reset: true });
  });

  test('a pulled cable: the port holds, then goes black after its three seconds, and comes back', async () => {
    const loss = { kind: 'hold-black', after: 3, over: 0 };
    await bench({ id: 'boiler', turn: { port: 1, settings: { loss } } });
    // One slot held up at the desk, so that the port is lit in whatever cue.
    await panel(21, 'fader', { universe: 6, channel: 1, level: 200 });
    const lit = async () => (await box('boiler')).ports[0]!;
    await until(lit, ({ peak, state }) => state === 'fed' && peak > 0);
    // Counted from before it was asked for: a slow machine may answer long after the cable was out.
    const pulled = Date.now();
    await bench({ id: 'boiler', plugged: false });
    const held = await until(lit, ({ state }) => state === 'lost');
    const lost = Date.now() - pulled;
    expect(held.peak).toBeGreaterThan(0);
    await until(lit, ({ peak }) => peak === 0, 12_000);
    const black = Date.now() - pulled;
    // 2.5 s until a source counts as lost, three more of holding; the machine may be slow, never early.
    expect(lost).toBeGreaterThan(2400);
    expect(black - lost).toBeGreaterThan(2500);
    await bench({ id: 'boiler', plugged: true });
    await until(lit, ({ peak, state }) => state === 'fed' && peak > 0);
    await bench({ id: 'boiler', turn: { port: 1, settings: { loss: { kind: 'hold', after: 0, over: 0 } } } });
    await panel(21, 'fader', { universe: 6, channel: 1, level: null });
  });

  test('the spare is off until it is switched on; then it answers with a page for each of sixteen ports', async () => {
    expect(await box('spare')).toMatchObject({ powered: false });
    const pages = new Set<number>();
    const socket = await open('127.0.0.94', ports.artnet, (bytes) => {
      const decoded = decodeArtNet(bytes);
      if (decoded.ok && decoded.value.kind === 'pollReply' && decoded.value.portName === 'Spare')
        pages.add(decoded.value.bindIndex);
    });
    await bench({ id: 'spare', power: true });
    await until(
      async () => {
        socket.send(encodePoll(), ports.artnet, '127.0.0.63');
        return pages.size;
      },
      (count) => count === 16,
    );
    await bench({ id: 'spare', power: false });
  });

  test('the Purser’s desk comes in through the Saloon node as sACN', async () => {
    const values: number[] = [];
    const socket = await open('0.0.0.0', ports.sacn, (bytes) => {
      const decoded = decodeSacn(bytes);
      if (decoded.ok && decoded.value.kind === 'data' && decoded.value.universe === 41) {
        expect(decoded.value.sourceName).toBe('Saloon node');
        values.push(decoded.value.slots[0]!);
      }
    });
    socket.addMembership(multicastGroup(41), '127.0.0.1');
    await until(
      async () => values.length,
      (count) => count > 10,
    );
    await bench({ id: 'saloon', turn: { port: 1, settings: { use: 'off' } } });
    const before = values.length;
    await new Promise((done) => setTimeout(done, 200));
    expect(values.length).toBeLessThanOrEqual(before + 1);
    await bench({ id: 'saloon', turn: { port: 1, settings: { use: 'in' } } });
  });

  test.each([
    [{ id: 'ghost' }, /no stand-in “ghost”/],
    [{ id: 'foredeck', turn: { port: 1, settings: { merge: 'ltp' } } }, /Marram Pair 2 cannot merge/],
    [{ id: 'boiler', turn: { port: 9 } }, /has no port 9/],
    [{ id: 'boiler', loses: 7 }, /Loss runs from 0 to 1/],
  ])('%j is refused in a sentence', async (act, why) => expect(bench(act)).rejects.toThrow(why));
});

test('a second set of stand-ins ends with a sentence', async () => {
  const second = start();
  let said = '';
  second.stderr!.on('data', (text) => (said += String(text)));
  expect(await new Promise((done) => second.once('exit', done))).toBe(1);
  expect(said).toMatch(/another set of them runs already.*--no-standins/);
});
