/** A whole exchange of rigs over real sockets: this program's side and the stand-ins', which know nothing of each other. */
import { createSocket as createUdp } from 'node:dgram';
import { createConnection, createServer, type AddressInfo, type Socket } from 'node:net';
import { randomUUID } from 'node:crypto';
import { citpFixtures } from '@taxiarch/core/files/format';
import { readMvr, writeMvr } from '@taxiarch/core/files/format/archive';
import { nightFerry } from '@taxiarch/core/whole/demo';
import {
  encodeFile,
  encodeJson,
  PackageReader,
  readMessage,
  writeMessage,
  type Commit,
} from '@taxiarch/core/protocol/xchange';
import { encodeCitp } from '@taxiarch/core/protocol/citp';
import { Beacon } from '../apps/server/src/exchange/beacon';
import { CitpPeers } from '../apps/server/src/exchange/citpPeers';
import { Stations } from '../apps/server/src/exchange/stations';
import { until } from '../apps/server/src/testing/until';
import { openExchange } from '../apps/standins/src/exchange/exchangeBox';
import { BRIDGE_EXCHANGE, CROW_EXCHANGE } from '../apps/standins/src/exchange/setups';

jest.setTimeout(120_000);

const worker = Number(process.env['JEST_WORKER_ID'] ?? 1);
const ports = { mdns: 19_100 + worker, citp: 19_200 + worker };
const iface = {
  ...{ name: 'lo', address: '127.0.0.1', netmask: '255.0.0.0', mac: '', loopback: true, up: true },
  medium: 'loopback' as const,
};
const ferry = nightFerry();
const lampsOnly = { ...ferry, run: [], machine: [] };
const ME = '7ff00000-0000-4000-8000-000000000001';
const { stationId: BRIDGE } = BRIDGE_EXCHANGE;
const { stationId: CROW } = CROW_EXCHANGE;

let bridge: Awaited<ReturnType<typeof openExchange>>;
let crow: Awaited<ReturnType<typeof openExchange>>;
let stations: Stations;
const news: [string, Commit][] = [];
const setup = { stationId: ME, name: 'Plan', group: 'Default', iface, mdnsPort: ports.mdns };

interface Held {
  readonly from: string;
  readonly comment: string;
  readonly joined: readonly string[];
  readonly selected: readonly number[];
  readonly rig: readonly { readonly number: number; readonly universe: number; readonly channel: number }[];
}
const heldBy = (box: typeof bridge) => box.acts['held']!({}) as Held;
const known = (stationId: string) => stations.report().list.find((one) => one.stationId === stationId);
const fetched = async (stationId: string, fileId = known(stationId)!.commits.at(-1)!.fileId) =>
  stations.fetch(stationId, fileId);

beforeAll(async () => {
  bridge = await openExchange(BRIDGE_EXCHANGE, ferry, ports);
  crow = await openExchange(CROW_EXCHANGE, ferry, ports);
  stations = new Stations(setup, (name, commit) => news.push([name, commit]));
  await stations.start();
  await until(() => [BRIDGE, CROW].every((id) => known(id)?.joined));
});
afterAll(async () => {
  await stations.end();
  bridge.end();
  crow.end();
});

test('both are found and joined; what they offered before is known, and what they commit then is news', async () => {
  expect(known(CROW)!.commits.map(({ comment }) => comment)).toEqual(['its own file, from before the last rehearsal']);
  expect(news).toEqual([]);
  crow.acts['commit']!({ comment: 'a lamp more' });
  await until(() => news.length === 1);
  expect(news[0]).toMatchObject(['Crow’s nest', { comment: 'a lamp more' }]);
  expect(known(BRIDGE)).toMatchObject({ provider: 'Baleen Helm', address: '127.0.0.21', trouble: '' });
  expect(heldBy(bridge).joined).toEqual(['Plan']);
});

test('a file that is fetched is the one that is offered, with its three lamps otherwise', async () => {
  const file = await fetched(BRIDGE);
  if (!file.ok) throw new Error(file.why);
  expect(file.value.name).toContain('Bridge desk, its own file');
  const read = readMvr(file.value.bytes);
  if (!read.ok) throw new Error(read.why);
  const ours = new Map(ferry.lamp.map((lamp) => [lamp.name, lamp]));
  const otherwise = read.value.lamps.filter((lamp) => {
    const own = ours.get(lamp.name)!;
    return lamp.number !== own.number || lamp.addresses?.[0]?.channel !== own.channel || lamp.mode !== own.mode;
  });
  expect(otherwise.map(({ name }) => name)).toEqual(
    [101, 105, 112].map((number) => ferry.lamp.find((one) => one.number === number)!.name),
  );
});

test('what is committed reaches both, with its comment, and is what they hold', async () => {
  const rig = { ...lampsOnly, lamp: ferry.lamp.map((one) => (one.number === 101 ? { ...one, channel: 400 } : one)) };
  const told = await stations.commit(
    writeMvr(rig, () => undefined),
    'as hung',
    'x.mvr',
    [],
    420,
  );
  expect(told).toEqual({ told: 2, not: [] });
  for (const box of [bridge, crow]) {
    await until(() => heldBy(box).comment === 'as hung');
    expect(heldBy(box).from).toBe('Plan');
    expect(heldBy(box).rig.find(({ number }) => number === 101)).toMatchObject({ channel: 400 });
  }
});

test('what is meant for one is told to that one alone', async () => {
  await stations.commit(
    writeMvr(lampsOnly, () => undefined),
    'for the crow',
    'x.mvr',
    [CROW],
    420,
  );
  await until(() => heldBy(crow).comment === 'for the crow');
  expect(heldBy(bridge).comment).toBe('as hung');
});

test('a station that vanishes in mid-file: a sentence, nothing given, and the next try works', async () => {
  bridge.acts['vanish']!({ after: 3000 });
  const cut = await fetched(BRIDGE);
  expect(cut).toMatchObject({ ok: false, why: expect.stringMatching(/^Bridge desk ended the connection/) });
  bridge.acts['vanish']!({});
  expect((await fetched(BRIDGE)).ok).toBe(true);
});

test('a file that is offered no more is refused with the other’s reason', async () => {
  expect(await stations.fetch(BRIDGE, randomUUID())).toMatchObject({
    ok: false,
    why: expect.stringContaining('This file is not offered here.'),
  });
});

/** A station of a test's own, which answers as `answer` says. */
function fakeStation(answer: (socket: Socket, bytes: Buffer) => void, address = '127.0.0.77') {
  const stationId = randomUUID();
  const server = createServer((socket) => {
    socket.on('error', () => undefined);
    socket.on('data', (bytes: Buffer) => answer(socket, bytes));
  });
  return new Promise<{ stationId: string; close: () => Promise<void> }>((ready) =>
    server.listen(0, address, () => {
      const { port } = server.address() as AddressInfo;
      const beacon = new Beacon(
        { name: 'Odd one', stationId, group: 'Default', address, port },
        ports.mdns,
        () => undefined,
        () => undefined,
      );
      ready({
        stationId,
        close: async () => {
          server.close();
          await beacon.end();
        },
      });
    }),
  );
}
const joins = (socket: Socket, stationId: string, commits: Commit[]) =>
  socket.write(
    encodeJson(
      writeMessage({ type: 'joinRet', ok: true, message: '', stationId, name: 'Odd one', provider: 'x', commits }),
    ),
  );
const messageIn = (bytes: Buffer) => {
  const read = new PackageReader().push(new Uint8Array(bytes));
  const first = read.ok ? read.value[0] : undefined;
  const message = first?.kind === 'json' ? readMessage(first.text) : undefined;
  return message?.ok ? message.value : undefined;
};

test('a station that sends what is no file, or says that it is huge, is refused in a sentence', async () => {
  const huge = Buffer.from(encodeFile(new Uint8Array(4))[0]!);
  huge.writeBigUInt64BE(2n ** 41n, 20);
  for (const [bytes, why] of [
    [Buffer.from('GET / HTTP/1.1\r\nHost: nobody.example\r\n\r\n'), 'no package of MVR-xchange'],
    [huge, 'larger than'],
  ] as const) {
    const fileId = randomUUID();
    const odd: { stationId: string; close: () => Promise<void> } = await fakeStation((socket, asked) => {
      const commit = { fileId, stationId: odd.stationId, forIds: [], comment: '', fileName: '../../x', size: 1 };
      if (messageIn(asked)?.type === 'join') joins(socket, odd.stationId, [commit]);
      else socket.write(bytes);
    });
    await until(() => known(odd.stationId)?.commits.length === 1);
    const got = await stations.fetch(odd.stationId, fileId);
    expect(got).toMatchObject({ ok: false, why: expect.stringContaining(why) });
    await odd.close();
    await until(() => known(odd.stationId) === undefined);
  }
});

test('nobody speaks for a station that is known at another address', async () => {
  const { port, address } = stations.report();
  const said = await new Promise<ReturnType<typeof messageIn>>((done) => {
    const socket = createConnection({ host: address, port, localAddress: '127.0.0.66' }, () =>
      socket.write(encodeJson(writeMessage({ type: 'leave', stationId: BRIDGE }))),
    );
    socket.on('data', (bytes: Buffer) => {
      socket.destroy();
      done(messageIn(bytes));
    });
  });
  expect(said).toMatchObject({ type: 'leaveRet', ok: false });
  expect(known(BRIDGE)).toBeDefined();
});

test('a flood of connections that say nothing leaves room for the others', async () => {
  const { port, address } = stations.report();
  const open = () =>
    new Promise<Socket>((done) => {
      const socket = createConnection({ host: address, port, localAddress: '127.0.0.67' }, () => done(socket));
      socket.on('error', () => undefined);
    });
  const flood = await Promise.all(Array.from({ length: 60 }, open));
  await until(() => flood.filter(({ destroyed }) => destroyed).length >= 52);
  // Those that came first stay: it is no time-out that closed the others.
  expect(flood.filter(({ destroyed }) => !destroyed)).toHaveLength(8);
  bridge.acts['commit']!({ comment: 'in the flood' });
  await until(() => known(BRIDGE)!.commits.at(-1)!.comment === 'in the flood');
  for (const socket of flood) socket.destroy();
});

test('by a host: another station joins it, is told, and gets the file through it', async () => {
  const second = new Stations(
    {
      ...setup,
      stationId: randomUUID(),
      name: 'Second',
      group: 'Elsewhere',
      iface: { ...iface, address: '127.0.0.2' },
    },
    (name, commit) => news.push([name, commit]),
  );
  await second.start();
  const hosted = await stations.move('host');
  if (!hosted.ok) throw new Error(hosted.why);
  expect(await second.move(hosted.value)).toEqual({ ok: true, value: hosted.value });
  await until(() => second.report().list.some((one) => one.stationId === ME && one.joined));
  const bytes = writeMvr(lampsOnly, () => undefined);
  await stations.commit(bytes, 'by the host', 'x.mvr', [], 420);
  const at = () =>
    second
      .report()
      .list.find((one) => one.stationId === ME)
      ?.commits.at(-1);
  await until(() => at()?.comment === 'by the host');
  const got = await second.fetch(ME, at()!.fileId);
  expect(got.ok && Buffer.from(got.value.bytes).equals(Buffer.from(bytes))).toBe(true);
  // And the other way: the guest's own file, asked for by the host.
  await second.commit(bytes.subarray(0, 100), 'by the guest', 'y.mvr', [], 1);
  const guest = () => stations.report().list.find(({ name }) => name === 'Second');
  await until(() => guest()?.commits.at(-1)?.comment === 'by the guest');
  const back = await stations.fetch(guest()!.stationId, guest()!.commits.at(-1)!.fileId);
  expect(back.ok && back.value.bytes.length).toBe(100);
  expect(await second.move('http://nobody.example')).toMatchObject({ ok: false });
  await second.end();
  await until(() => guest() === undefined);
  await stations.move('');
  expect(stations.report().mode).toBe('tcp');
});

describe('CITP', () => {
  let peers: CitpPeers;
  let selects = true;
  beforeAll(async () => {
    const patch = async () => citpFixtures(ferry);
    peers = new CitpPeers({ name: 'Plan', iface, port: ports.citp, patch, selects: () => selects });
    await peers.start();
    await until(() => report().peers.filter(({ whole }) => whole).length === 2);
  });
  afterAll(() => peers.end());
  const report = () => peers.report((patch) => (patch.size === 420 ? [] : [1]));
  const crowNow = () => report().peers.find(({ name }) => name === 'Crow’s nest')!;

  test('programs are found, joined, and tell their patch when they are asked', async () => {
    expect(
      report()
        .peers.map(({ type }) => type)
        .sort(),
    ).toEqual(['LightingConsole', 'Visualizer']);
    const told = await peers.askPatch(crowNow().id);
    if (!told.ok) throw new Error(told.why);
    expect(told.value.fixtures).toHaveLength(420);
    expect(crowNow()).toMatchObject({ linked: true, lamps: 420, whole: true });
  });

  test('our patch is sent, and held there', async () => {
    expect(await peers.givePatch(crowNow().id)).toEqual({ ok: true, value: 420 });
    await until(() => heldBy(crow).comment === '420 lamps by CITP');
  });

  test('lamps are selected on both sides, and only with consent', async () => {
    expect(peers.select([101, 102])).toMatchObject({ ok: true, value: expect.arrayContaining(['Crow’s nest']) });
    await until(() => heldBy(crow).selected.join() === '101,102');
    crow.acts['select']!({ numbers: [7] });
    await until(() => crowNow().selected.join() === '7');
    selects = false;
    expect(peers.select([1])).toMatchObject({ ok: false });
    crow.acts['select']!({ numbers: [8] });
    await peers.askPatch(crowNow().id);
    expect(crowNow().selected.join()).toBe('7');
    selects = true;
  });

  test('one who sends nonsense is cut off, and the others stay', async () => {
    const { port } = peers;
    const closed = await new Promise<boolean>((done) => {
      const socket = createConnection({ host: '127.0.0.1', port }, () =>
        socket.write(Buffer.concat([encodeCitp({ kind: 'PNam', name: 'x' }), Buffer.alloc(64, 0xff)])),
      );
      socket.on('error', () => undefined);
      socket.on('close', () => done(true));
    });
    expect(closed).toBe(true);
    expect(crowNow().linked).toBe(true);
  });

  test('one whose cable is pulled is not linked for ever, though nobody closed its connection', async () => {
    const sockets: Socket[] = [];
    const server = createServer((socket) => {
      socket.on('error', () => undefined);
      sockets.push(socket);
      socket.write(encodeCitp({ kind: 'PNam', name: 'Pulled' }));
    });
    await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
    const { port } = server.address() as { port: number };
    const udp = createUdp('udp4');
    await new Promise<void>((done) => udp.bind(0, '127.0.0.1', done));
    udp.setMulticastInterface('127.0.0.1');
    const tell = () =>
      udp.send(
        encodeCitp({ kind: 'PLoc', port, type: 'Visualizer', name: 'Pulled', state: '' }),
        ports.citp,
        '239.224.0.180',
      );
    const telling = setInterval(tell, 300);
    const linked = () => report().peers.find(({ name }) => name === 'Pulled')?.linked;
    await until(() => linked() === true);
    clearInterval(telling);
    udp.close();
    await until(() => linked() !== true);
    for (const socket of sockets) socket.destroy();
    server.close();
  });

  test('one that goes away is not connected any more, and cannot be asked', async () => {
    crow.run(false);
    await until(() => !report().peers.some(({ name, linked }) => name === 'Crow’s nest' && linked));
    const one = report().peers.find(({ name }) => name === 'Crow’s nest');
    expect(await peers.askPatch(one?.id ?? 'gone')).toMatchObject({ ok: false });
    crow.run(true);
    await until(() => report().peers.some(({ name, linked }) => name === 'Crow’s nest' && linked));
  });
});
