/** Everything that takes slots gives them back, however it ends: by itself, by somebody else, by a failure, or with its device. */
import { randomUUID } from 'node:crypto';
import WebSocket from 'ws';
import type { OutputReport, StepReply } from '@taxiarch/core/whole/contract';
import type { EyeReply } from '@taxiarch/core/proving/eye';
import { PLAIN_INPUT, PLAIN_ROUTE, type Route } from '@taxiarch/core/show/records';
import type { RouteReport } from '@taxiarch/core/signal/route';
import { WHOLE_WALK } from '@taxiarch/core/proving/walk';
import { ServerProcess, eventually, newFolder, removeFolder } from '../testing/serverProcess';

jest.setTimeout(180_000);

const folder = newFolder();
let server: ServerProcess;
beforeAll(async () => {
  server = await ServerProcess.start(folder, ['--breakable']);
  await addRoute();
});
afterAll(async () => {
  await server.stop();
  removeFolder(folder);
});

const post = async <T>(path: string, body: object): Promise<T> => {
  const { status, body: reply } = await server.request('POST', path, body);
  if (status >= 300) throw new Error(`${path}: ${JSON.stringify(reply)}`);
  return reply as T;
};
const output = () => server.get<OutputReport>('/api/output');
const holds = async () => (await output()).holds.length;
const hot = (on: boolean) => post('/api/output/hot', { hot: on, by: 'Mira' });

/** The feed of a phone; closing it is what happens when the phone goes. */
async function phone(client: string): Promise<WebSocket> {
  const socket = new WebSocket(`ws://127.0.0.1:${server.port}/feed?client=${client}`);
  await new Promise((open) => socket.once('open', open));
  return socket;
}

const ROUTE = 'route-taker';
async function addRoute(): Promise<void> {
  const wire = (number: number) => ({ protocol: 'sacn', number }) as const;
  const after: Route = {
    ...PLAIN_ROUTE,
    ...{ id: ROUTE, rev: 0, name: 'Taker', order: 0, out: wire(900), delivery: 'multicast', addresses: [] },
    inputs: [{ ...PLAIN_INPUT, wire: wire(1) }],
  };
  await post('/api/edits', {
    author: 'Mira',
    sentence: 'Added a route',
    changes: [{ kind: 'route', id: ROUTE, rev: null, after }],
  });
}

const walks = new Map<string, string>();
async function beginWalk(client: string): Promise<void> {
  const covers = { kind: 'universe', id: '1', part: '' };
  const lampIds = ['lamp-1', 'lamp-2'];
  const id = randomUUID();
  const at = new Date().toISOString();
  const after = {
    ...{ id, rev: 0, name: `Walk ${client}`, by: 'Mira', at, covers, order: 'number', unit: 'lamp' },
    ...{ pictures: ['full'], lampIds },
  };
  await post('/api/edits', { author: 'Mira', sentence: 'Began', changes: [{ kind: 'walk', id, rev: null, after }] });
  walks.set(client, id);
  const step = { part: WHOLE_WALK, want: 'next', from: '', this: '', done: [] };
  const light = { speed: 1, level: 1 };
  const { lighting } = await post<StepReply>(`/api/walks/${id}/step`, {
    ...step,
    ...{ walker: client, by: 'Mira', light },
  });
  expect(lighting).toBe('on');
}

interface Taker {
  begin(client: string): Promise<unknown>;
  end(client: string): Promise<unknown>;
}

const TAKERS: Readonly<Record<string, Taker>> = {
  take: {
    begin: (client) => post('/api/output/take', { client, by: 'Mira', slots: { '1/1-12': 255 } }),
    end: (client) => post('/api/output/give-back', { client }),
  },
  'test picture': {
    begin: (client) =>
      post('/api/pictures', {
        ...{ client, id: 'a', by: 'Mira', speed: 1, level: 1, picture: 'level', lampIds: ['lamp-1'], universes: [] },
      }),
    end: (client) => post('/api/pictures/end', { client, id: 'a' }),
  },
  walk: {
    begin: beginWalk,
    end: (client) => server.request('POST', `/api/walks/${walks.get(client)!}/leave`, { walker: client }),
  },
  'match by eye': {
    begin: () =>
      post('/api/eye/begin', { by: 'Mira', how: 'stretches', lampIds: ['lamp-1', 'lamp-2'], forget: 'none' }),
    end: () => post('/api/eye/end', {}),
  },
};

/** A match that was not ended goes on when somebody looks at it again: it is ended here, so that each case begins alone. */
async function endMatch(): Promise<void> {
  if ((await server.get<EyeReply>('/api/eye')).running) await post('/api/eye/end', {});
}

describe.each(Object.entries(TAKERS))('%s', (name, taker) => {
  const client = `phone-${name.replaceAll(' ', '-')}`;
  let socket: WebSocket;
  beforeEach(async () => {
    await eventually(
      () => server.request('POST', '/api/output/hot', { hot: true, by: 'Mira' }),
      ({ status }) => status === 200,
    );
    socket = await phone(client);
    await taker.begin(client);
    await eventually(holds, (count) => count > 0);
  });
  afterEach(async () => {
    socket.close();
    await endMatch();
    await hot(false);
  });

  test('gives back when it ends, and takes nothing again', async () => {
    // A phone that looks on while it ends lights nothing anew.
    await Promise.all([taker.end(client), server.request('GET', '/api/eye'), server.request('GET', '/api/eye')]);
    expect(await holds()).toBe(0);
    await server.request('GET', '/api/eye');
    expect(await holds()).toBe(0);
  });

  test('gives back when somebody gives back all', async () => {
    await post('/api/output/give-back', {});
    expect(await holds()).toBe(0);
  });

  test('gives back when Taxiarch is made safe, and when the engine fails', async () => {
    await hot(false);
    expect(await holds()).toBe(0);
    await hot(true);
    await endMatch();
    await taker.begin(client);
    await eventually(holds, (count) => count > 0);
    server.type('break engine throw');
    await eventually(
      () => server.request('GET', '/api/output'),
      ({ status, body }) => status === 200 && !(body as OutputReport).hot,
    );
    expect(await holds()).toBe(0);
  });

  test('gives back when its device is gone', async () => {
    socket.close();
    await eventually(holds, (count) => count === 0);
  });
});

test('a route belongs to no device: it runs until it is stopped or Taxiarch is made safe', async () => {
  const running = async () =>
    (await server.get<RouteReport[]>('/api/routes')).filter((one) => one.running).map(({ id }) => id);
  await hot(true);
  const socket = await phone('route');
  await post('/api/routes/run', { ids: [ROUTE], on: true, by: 'Mira' });
  socket.close();
  expect(await running()).toEqual([ROUTE]);
  await post('/api/routes/run', { ids: [ROUTE], on: false, by: 'Mira' });
  expect(await running()).toEqual([]);
  await post('/api/routes/run', { ids: [ROUTE], on: true, by: 'Mira' });
  await hot(false);
  expect(await running()).toEqual([]);
});
