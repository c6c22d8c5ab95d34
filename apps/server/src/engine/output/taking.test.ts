/** Output on real sockets: what is taken is sent, kept alive, held and given back. */
import { holderOf } from '../../bridge/holder';
import { multicastGroup, wireKey } from '@taxiarch/core/base/address';
import {
  type ArtDmx,
  ArtNet,
  blankPollReply,
  decodeArtNet,
  encodeDmx,
  encodePollReply,
} from '@taxiarch/core/protocol/artnet';
import { encodeLevelsFrame, type OutputReport, type Problem } from '@taxiarch/core/whole/contract';
import { Sacn, decodeSacn, type SacnData } from '@taxiarch/core/protocol/sacn';
import { Sender, openSocket } from '../../testing/wire';
import { eventually, udpPorts } from '../../testing/serverProcess';

import { Client, hot, live, runServer, server, take, universeOf } from '../../testing/liveServer';

runServer();

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
    await server().request('POST', '/api/output/give-back', { client: 'a', slots: ['5/2'] });
    await eventually(
      () => priorities().at(-1)!.slots[1],
      (priority) => priority === 0,
    );
    await server().request('POST', '/api/output/give-back', {});
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
      server()
        .get<OutputReport>('/api/output')
        .then((output) => output.holds.map(({ holder }) => holder));
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
    expect((await server().get<OutputReport>('/api/output')).holds).toHaveLength(1);
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
    await server().request('POST', '/api/output/give-back', {});
    await eventually(() => received.at(-1)!.slots.every((level) => level === 0), Boolean);
    clearInterval(answer);
    clearInterval(sending);
    await eventually(live, ({ nodes }) => nodes.some((one) => one.shortName === 'Test node' && one.gone));
  });
});
