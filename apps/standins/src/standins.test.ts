/** The stand-ins as a network meets them: packets in, packets out, and the front panel. */
import { multicastGroup } from '@taxiarch/core/base/address';
import {
  decodeArtNet,
  encodePoll,
  POLL_REPLY_ON_CHANGE,
  portsOf,
  type ArtPollReply,
} from '@taxiarch/core/protocol/artnet';
import type { StandIn } from '@taxiarch/core/whole/contract';
import { decodeSacn } from '@taxiarch/core/protocol/sacn';

import { levels, open, panel, portOf, ports, runStandIns, start, until } from './testing/standIns';

runStandIns();

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

  test('one that is moved to an address in use, or to one that nobody has, is survived, and found again when it is back', async () => {
    const from: string[] = [];
    const socket = await open('127.0.0.96', ports.artnet, (bytes) => {
      const decoded = decodeArtNet(bytes);
      if (decoded.ok && decoded.value.kind === 'pollReply') from.push(`${decoded.value.portName} ${decoded.value.ip}`);
    });
    const answers = (wanted: string) =>
      until(
        async () => {
          socket.send(encodePoll(), ports.artnet, '127.255.255.255');
          return from;
        },
        (all) => all.includes(wanted),
      );
    await bench({ id: 'boiler', turn: { address: '127.0.0.33' } });
    await answers('Boiler node 127.0.0.33');
    await answers('Car deck node 127.0.0.33');
    await bench({ id: 'boiler', turn: { address: '203.0.113.7' } });
    from.length = 0;
    await answers('Car deck node 127.0.0.33');
    expect(from.filter((one) => one.startsWith('Boiler node'))).toEqual([]);
    await bench({ id: 'boiler', turn: { address: '127.0.0.32' } });
    await answers('Boiler node 127.0.0.32');
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
