/** The feed over real sockets: requests without trust, and clients that are there or gone. */
import { holderOf } from '../bridge/holder';
import { connect } from 'node:net';
import { WebSocket } from 'ws';
import type { LiveReport } from '@taxiarch/core/whole/contract';
import { until } from '../testing/until';
import { ServerProcess, eventually, newFolder, removeFolder } from '../testing/serverProcess';

jest.setTimeout(180_000);

const folder = newFolder();
let server: ServerProcess;
beforeAll(async () => (server = await ServerProcess.start(folder)));
afterAll(async () => {
  expect(await server.stop()).toBe(0);
  removeFolder(folder);
});

/** Sends an upgrade as it stands; resolves with the first line of the answer, or with nothing if the line was cut. */
function upgrade(url: string, headers: readonly string[] = [], cut = false): Promise<string> {
  return new Promise((done) => {
    const socket = connect(server.port, '127.0.0.1', () => {
      socket.write(
        [`GET ${url} HTTP/1.1`, 'Connection: Upgrade', 'Upgrade: websocket', ...headers, '', ''].join('\r\n'),
      );
      if (cut) socket.resetAndDestroy();
    });
    let said = '';
    socket.on('data', (text) => (said += String(text)));
    socket.on('error', () => done(''));
    socket.on('close', () => done(said.split('\r\n')[0]!));
  });
}

/** Longer than a page may be silent */
const SLEEPS_MS = 7000;

const own = () => `Host: 127.0.0.1:${server.port}`;

test.each(['//', 'http://[', '/feed%', '*', '//[::1', `/${'x'.repeat(8000)}`])(
  'an upgrade to %s is refused before anything of it is read',
  async (url) => {
    expect(await upgrade(url, ['Host: elsewhere.test', 'Origin: http://elsewhere.test'])).toMatch(/^HTTP\/1.1 403/);
    expect(await upgrade(url, [own()])).toMatch(/^HTTP\/1.1 403/);
    await upgrade(url, [own()], true);
    expect((await server.request('GET', '/api/show')).status).toBe(200);
  },
);

test('many refused upgrades that are reset at once harm nobody', async () => {
  await Promise.all(Array.from({ length: 60 }, () => upgrade('//', ['Host: elsewhere.test'], true)));
  expect((await server.request('GET', '/api/show')).status).toBe(200);
});

const opened = async (id: string): Promise<WebSocket> => {
  const socket = new WebSocket(`ws://127.0.0.1:${server.port}/feed?client=${id}`);
  await new Promise((ready, failed) => socket.once('open', ready).once('error', failed));
  return socket;
};
const holdsOf = async (client: string): Promise<number> =>
  (await server.get<LiveReport>('/api/live')).output.holds.filter(({ holder }) => holder === holderOf(client)).length;
const take = (client: string, slot: string) =>
  server.request('POST', '/api/output/take', { client, by: 'Mara', slots: { [slot]: 20 } });

describe('who has taken something', () => {
  beforeAll(() => server.request('POST', '/api/output/hot', { hot: true, by: 'Mara' }));
  afterAll(() => server.request('POST', '/api/output/hot', { hot: false, by: 'Mara' }));

  test('is told by a name that only its own feed was told; its id is told to nobody', async () => {
    const socket = new WebSocket(`ws://127.0.0.1:${server.port}/feed?client=quite-secret`);
    const first = await new Promise<string>((done) => socket.once('message', (text) => done(String(text as Buffer))));
    await take('quite-secret', '5/1');
    const live = JSON.stringify((await server.request('GET', '/api/live')).body);
    expect(live).toContain((JSON.parse(first) as { holder: string }).holder);
    expect(live).not.toContain('quite-secret');
    expect(first).not.toContain('quite-secret');
    socket.close();
  });

  test('and lost the network has it given back in five seconds; who is there keeps it', async () => {
    const there = await opened('there');
    const gone = await opened('gone');
    expect([(await take('there', '3/1')).status, (await take('gone', '3/2')).status]).toEqual([200, 200]);
    // Nothing is read or answered any more, as behind a wall; the connection itself is never closed.
    (gone as unknown as { _socket: { pause(): void } })._socket.pause();
    await eventually(
      () => holdsOf('gone'),
      (holds) => holds === 0,
      12_000,
    );
    expect(await holdsOf('there')).toBe(1);
    there.terminate();
    gone.terminate();
  });

  test('and whose page sleeps, though its system still answers, is gone too', async () => {
    const page = await opened('asleep');
    page.send(JSON.stringify({ type: 'here' }));
    expect((await take('asleep', '3/3')).status).toBe(200);
    // The library answers the protocol's own pings; the page says nothing more.
    await eventually(
      () => holdsOf('asleep'),
      (holds) => holds === 0,
      12_000,
    );
    page.terminate();
  });

  test('keeps it when it was the server that slept, and only the silence after that counts', async () => {
    const page = await opened('patient');
    page.on('message', (text) => {
      if (String(text as Buffer).includes('"there"')) page.send(JSON.stringify({ type: 'here' }));
    });
    page.send(JSON.stringify({ type: 'here' }));
    expect((await take('patient', '3/6')).status).toBe(200);
    server.sleep();
    await new Promise((passed) => setTimeout(passed, SLEEPS_MS));
    server.wake();
    await eventually(
      () => server.request('GET', '/api/live'),
      ({ status }) => status === 200,
    );
    // Through several beats every report knows of the hold.
    const after = Date.now();
    while (Date.now() - after < 2000) expect(await holdsOf('patient')).toBe(1);
    page.terminate();
  });

  test('and comes back within five seconds keeps it', async () => {
    const first = await opened('back');
    expect((await take('back', '3/4')).status).toBe(200);
    first.terminate();
    const second = await opened('back');
    await expect(
      eventually(
        () => holdsOf('back'),
        (holds) => holds === 0,
        6000,
      ),
    ).rejects.toThrow();
    second.terminate();
  });
});

test('more pages than are served at once are told so; those that are there stay', async () => {
  const refused = new Set<number>();
  const open = await Promise.all(
    Array.from({ length: 260 }, async (_, i) => {
      const socket = await opened(`page-${i}`);
      socket.once('close', (code) => code === 1013 && refused.add(i));
      return socket;
    }),
  );
  // A page of the tests before may still be counted for a moment.
  await until(() => refused.size >= 4);
  const stay = open.filter((_, i) => !refused.has(i));
  expect(stay.length).toBeGreaterThan(250);
  await Promise.all(stay.map((socket) => new Promise((done) => socket.once('message', done))));
  for (const socket of open) socket.terminate();
});
