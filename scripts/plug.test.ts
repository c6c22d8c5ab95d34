/** DMX through a plug over real sockets: this program's side and the stand-in adapters, which know nothing of each other. */
import { NOBODY } from '@taxiarch/core/signal/merge';
import { SharedLevels } from '../apps/server/src/bridge/shared';
import { openNetLine } from '../apps/server/src/plug/linePort';
import { Plug } from '../apps/server/src/plug/plug';
import type { PlugOrder } from '../apps/server/src/plug/plugMessages';
import { type LiveReport, type PlugsReply } from '@taxiarch/core/whole/contract';
import {
  PLAIN_INPUT,
  PLAIN_MACHINE,
  PLAIN_PORT,
  PLAIN_ROUTE,
  type AnyRecord,
  type Kind,
} from '@taxiarch/core/show/records';
import { ServerProcess, eventually, newFolder, removeFolder } from '../apps/server/src/testing/serverProcess';
import { until } from '../apps/server/src/testing/until';
import { AdapterBox } from '../apps/standins/src/adapter/adapterBox';

jest.setTimeout(180_000);
const worker = Number(process.env['JEST_WORKER_ID'] ?? 1);
const PORT = 19_300 + worker;
const PANEL = 19_400 + worker;

const shared = new SharedLevels();
const ROW = 3;
const owners = new Uint8Array(512);
const heard = (level: number) => shared.write(ROW, new Uint8Array(512).fill(level), owners);
const nobody = () => shared.write(ROW, new Uint8Array(512), new Uint8Array(512).fill(NOBODY));

const order = (host: string, over: Partial<PlugOrder> = {}): PlugOrder => ({
  ...{ machineId: 'plug', name: 'Chart plug', use: 'out', place: { kind: 'net', host, port: PORT } },
  ...{ rate: 44, slots: 512, row: ROW, by: 'Mara', since: 1, loss: { kind: 'hold', after: 0, over: 0 }, start: 'wait' },
  ...over,
});

const frames: Uint8Array[] = [];
function begin(given: PlugOrder): Plug {
  const plug = new Plug(given, {
    levels: shared,
    open: ({ place, use }, events) => {
      if (place.kind !== 'net') throw new Error('no serial ports here');
      return openNetLine(place.host, place.port, use === 'in', events);
    },
    frame: (_id, slots) => frames.push(slots),
  });
  running.push(plug);
  return plug;
}
const running: Plug[] = [];
let out: AdapterBox;
let desk: AdapterBox;
beforeAll(async () => {
  out = new AdapterBox({ id: 'out', name: 'Out', model: 'x', address: '127.0.0.86', use: 'out' }, PORT);
  desk = new AdapterBox({ id: 'in', name: 'In', model: 'x', address: '127.0.0.87', use: 'in' }, PORT);
  await out.start(PANEL);
  await desk.start(PANEL);
});
afterEach(() => {
  for (const plug of running.splice(0)) plug.end();
});
afterAll(() => {
  out.end();
  desk.end();
});
const atFarEnd = async (): Promise<number[]> =>
  ((await (await fetch(`http://127.0.0.86:${PANEL}/values`)).json()) as { values: number[] }).values;

test('what is merged arrives at the far end, slot by slot, 255 and all', async () => {
  heard(255);
  const plug = begin(order('127.0.0.86'));
  await until(async () => (await atFarEnd()).every((level) => level === 255));
  shared.write(
    ROW,
    Uint8Array.from({ length: 512 }, (_, i) => i % 256),
    owners,
  );
  await until(async () => (await atFarEnd())[300] === 300 % 256);
  expect((await atFarEnd()).map((level, i) => level - (i % 256)).every((difference) => difference === 0)).toBe(true);
  expect(plug.report()).toMatchObject({ state: 'runs', silent: false, path: `127.0.0.86:${PORT}` });
});

test('only as many slots leave it as are planned', async () => {
  heard(9);
  const plug = begin(order('127.0.0.86', { slots: 24 }));
  await until(async () => (await atFarEnd())[23] === 9 && (await atFarEnd())[24] === 0);
  expect(plug.passed.at(-1)!.plug).toHaveLength(24);
});

test('nobody sends any more: it is said, and the last levels are held or fade as planned', async () => {
  heard(80);
  const plug = begin(order('127.0.0.86'));
  await until(async () => (await atFarEnd())[0] === 80);
  nobody();
  await until(() => plug.report().silent);
  expect((await atFarEnd())[0]).toBe(80);
  expect(plug.follow(order('127.0.0.86', { loss: { kind: 'hold-black', after: 0, over: 0 } }))).toBe(true);
  await until(async () => (await atFarEnd())[0] === 0);
});

test('unplugged in mid-frame it is gone, and goes on by itself when it is back', async () => {
  heard(33);
  const plug = begin(order('127.0.0.86'));
  await until(async () => (await atFarEnd())[0] === 33);
  const { back } = plug.report();
  await out.plug(false);
  await until(() => plug.report().state === 'gone');
  expect(plug.report().why).toMatch(/\.$/);
  heard(44);
  await out.plug(true);
  await until(async () => (await atFarEnd())[0] === 44);
  expect(plug.report()).toMatchObject({ state: 'runs', back: back + 1, why: '' });
});

test('a plug that another program has open is said to be so, and is taken up when it is free', async () => {
  heard(5);
  const first = begin(order('127.0.0.86', { machineId: 'first' }));
  await until(() => first.report().state === 'runs');
  const second = begin(order('127.0.0.86', { machineId: 'second' }));
  await until(() => second.report().state === 'gone');
  first.end();
  await until(() => second.report().frames > 0 && second.report().state === 'runs');
});

test('what a desk sends comes in frame by frame', async () => {
  begin(order('127.0.0.87', { use: 'in', row: null }));
  await desk.handle({ fader: [4, 200] });
  await until(() => frames.at(-1)?.[4] === 200);
  expect(frames.at(-1)).toHaveLength(512);
  await desk.handle({ fader: [4, 10] });
  await until(() => frames.at(-1)?.[4] === 10);
});

describe('in the running server', () => {
  const folder = newFolder();
  let server: ServerProcess;
  beforeAll(async () => (server = await ServerProcess.start(folder)), 180_000);
  afterAll(async () => {
    await server.stop();
    removeFolder(folder);
  });

  const put = async (kind: Kind, after: AnyRecord) => {
    const changes = [{ kind, id: after.id, rev: null, after }];
    const reply = await server.request('POST', '/api/edits', { author: 'Mara', sentence: 'Planned', changes });
    expect(reply.body).toMatchObject({ sentence: 'Planned' });
  };
  const adapter = (id: string, host: string, use: 'out' | 'in', universe: number, routeId: string | null = null) => ({
    ...PLAIN_MACHINE,
    ...{ id, rev: 0, name: id, kind: 'USB adapter' as const, placeId: null },
    ports: [{ ...PLAIN_PORT, number: 1, use, protocol: 'sacn' as const, universe }],
    line: { at: `${host}:${PORT}`, slots: 512, routeId },
  });
  const run = (id: string, on = true) => server.request('POST', '/api/plugs/run', { ids: [id], on, by: 'Mara' });
  const hot = (on: boolean) => server.request('POST', '/api/output/hot', { hot: on, by: 'Mara' });
  const plugs = async () => (await server.get<PlugsReply>('/api/plugs')).plugs;
  const live = () => server.get<LiveReport>('/api/live');

  test('safe sends nothing out of a plug; hot it does what is taken, and safe again it stops', async () => {
    await put('machine', adapter('out', '127.0.0.86', 'out', 2));
    expect(await run('out')).toMatchObject({ status: 409, body: { title: 'Safe' } });
    await hot(true);
    expect((await run('out')).status).toBe(200);
    await eventually(plugs, ([one]) => one?.state === 'runs' && one.silent);
    await server.request('POST', '/api/output/take', { client: 'test', by: 'Mara', slots: { '2/7': 201 }, stay: true });
    await until(async () => (await atFarEnd())[6] === 201);
    expect((await live()).plugs).toMatchObject([{ machineId: 'out', by: 'Mara' }]);
    await hot(false);
    expect(await plugs()).toEqual([]);
    expect(await run('nobody')).toMatchObject({ status: 404 });
  });

  test('what a route makes leaves a plug, moved as the route says', async () => {
    const sacn = (number: number) => ({ protocol: 'sacn' as const, number });
    const hand = { first: 5, last: 6, by: 'hand' as const, level: 77, from: null };
    await put('route', {
      ...PLAIN_ROUTE,
      ...{ id: 'r', rev: 0, name: 'By hand', order: 1, out: sacn(900), parts: [hand] },
      inputs: [{ ...PLAIN_INPUT, wire: sacn(1) }],
    });
    await put('machine', adapter('routed', '127.0.0.86', 'out', 2, 'r'));
    await hot(true);
    await eventually(live, ({ routes }) => routes.some(({ id }) => id === 'r'));
    await run('routed');
    await until(async () => (await atFarEnd())[4] === 77 && (await atFarEnd())[6] === 0);
    // A route that leaves by a plug cannot be taken out of the show.
    const { seq } = await server.get<{ seq: number }>('/api/show');
    const changes = [{ kind: 'route', id: 'r', rev: seq - 1, after: null }];
    const refused = await server.request('POST', '/api/edits', { author: 'Mara', sentence: 'Deleted', changes });
    expect(refused.status).toBeGreaterThan(399);
    await hot(false);
  });

  test('what comes by a plug is heard on its universe under its name, and comes back after a restart', async () => {
    await put('machine', adapter('Tally plug', '127.0.0.87', 'in', 40));
    await desk.handle({ fader: [0, 90] });
    expect((await run('Tally plug')).status).toBe(200);
    const heardIt = ({ universes }: LiveReport) =>
      universes.find(({ show }) => show === 40)?.streams.some(({ name, lost }) => name === 'Tally plug' && !lost) ??
      false;
    await eventually(live, heardIt);
    await server.stop();
    server = await ServerProcess.startIn(folder);
    await eventually(live, heardIt);
    expect((await live()).output.hot).toBe(false);
  });
});
