/** The server as a client meets it: edits, conflicts, undo, refusals, and who may come in. */
import { createSocket } from 'node:dgram';
import { request as rawRequest } from 'node:http';
import type { EditReply, HistoryReply, Problem, ShowReply } from '@taxiarch/core/whole/contract';
import type { Edit } from '@taxiarch/core/show/edit';
import type { Lamp } from '@taxiarch/core/show/records';
import type { PortForecast, StandingReport, WhyReport } from '@taxiarch/core/truth/known';
import {
  ServerProcess,
  eventually,
  freePort,
  newFolder,
  removeFolder,
  udpPorts,
  type Reply,
} from '../testing/serverProcess';

jest.setTimeout(180_000);

const problem = (reply: Reply): Problem => reply.body as Problem;

describe('a show', () => {
  const folder = newFolder();
  let server: ServerProcess;
  beforeAll(async () => (server = await ServerProcess.start(folder)));
  afterAll(async () => {
    expect(await server.stop()).toBe(0);
    removeFolder(folder);
  });

  const lamp = async (number: number): Promise<Lamp> =>
    (await server.get<ShowReply>('/api/show')).records.lamp.find((one) => one.number === number)!;
  const move = (from: Lamp, channel: number, author = 'Mara') =>
    server.request('POST', '/api/edits', {
      author,
      sentence: `Moved lamp ${from.number} to ${from.universe}/${channel}`,
      changes: [{ kind: 'lamp', id: from.id, rev: from.rev, after: { ...from, channel } }],
    });

  test('a new folder begins with the demo show', async () => {
    const { seq, records } = await server.get<ShowReply>('/api/show');
    expect([seq, records.show[0]?.name]).toEqual([1, 'Night Ferry']);
    expect(records.lamp.length).toBeGreaterThan(400);
  });

  test('an edit is written, is in the history, and is taken back and brought back', async () => {
    const before = await lamp(101);
    const made = await move(before, 450);
    expect(made.status).toBe(201);
    const seq = (made.body as Edit).seq;
    expect(await lamp(101)).toMatchObject({ channel: 450, rev: seq });
    const history = await server.get<HistoryReply>('/api/history?author=Mara');
    expect(history).toMatchObject({ undo: seq, redo: null });
    expect(history.edits[0]).toMatchObject({ author: 'Mara', sentence: 'Moved lamp 101 to 2/450' });

    const newest = await server.get<HistoryReply>('/api/history?newest=1');
    expect([newest.edits.map((one) => one.seq), newest.earlier]).toEqual([[seq], seq - 1]);
    expect((await server.request('GET', '/api/history?newest=none')).status).toBe(400);

    const undone = await server.request('POST', '/api/undo', { author: 'Mara' });
    expect(undone.body).toMatchObject({ undoes: seq, sentence: 'Undid: Moved lamp 101 to 2/450' });
    expect((await lamp(101)).channel).toBe(before.channel);
    await server.request('POST', '/api/redo', { author: 'Mara' });
    expect((await lamp(101)).channel).toBe(450);
    await server.request('POST', '/api/undo', { author: 'Mara' });
  });

  test('why, how things stand and what a take would bring: asked of what there is, refused in a sentence', async () => {
    expect((await server.request('GET', '/api/why')).body).toMatchObject({ detail: 'Say of what: “kind” and “id”.' });
    expect((await server.request('GET', '/api/why?kind=sail&id=1')).status).toBe(404);
    expect((await server.request('GET', '/api/forecast')).status).toBe(400);
    expect((await server.request('GET', '/api/forecast/push')).body).toMatchObject({
      detail: 'Say which machines: “machines”.',
    });
    expect(await server.get('/api/forecast/push?machines=machine-boiler')).toEqual([]);
    expect((await server.request('GET', '/api/practice')).body).toMatchObject({
      cannot: 'There are no stand-ins: this is a real network, and nothing is planted in one.',
    });
    const begin = { author: 'Mara', count: 1, hard: 'easy' };
    expect((await server.request('POST', '/api/practice/begin', begin)).status).toBe(422);
    expect((await server.request('POST', '/api/practice/begin', { ...begin, count: 0 })).status).toBe(400);
    // Nobody is on this network: while it has just begun to listen nothing is missing yet.
    const standing = await eventually(
      () => server.get<StandingReport>('/api/standing'),
      ({ verdict }) => verdict.startsWith('Not yet.'),
    );
    expect(standing.wire).toMatchObject({ of: 40, known: 0 });
    expect(standing.troubles[0]).toMatchObject({ cause: 'here-deaf' });
    const why = await server.get<WhyReport>('/api/why?kind=lamp&id=lamp-101');
    expect(why.path.map(({ kind, state }) => [kind, state])).toEqual([
      ['lamp', 'open'],
      ['slot', 'open'],
      ['port', 'broken'],
      ['port', 'broken'],
      ['sender', 'broken'],
    ]);
    const forecast = await server.get<PortForecast[]>('/api/forecast?universe=6&priority=150');
    expect(forecast).toMatchObject([{ nodeId: 'machine-boiler', port: 1, follows: null }]);
    expect(await server.get('/api/happened')).toEqual({ happened: expect.any(Array) as unknown });
  });

  test('a shipped show takes the place of the open one as one edit, and undo brings it back', async () => {
    const same = await server.request('POST', '/api/show/shipped', { author: 'Mara', show: 'night-ferry' });
    expect([same.status, problem(same).detail]).toEqual([409, 'Night Ferry is open already, as it ships.']);
    const opened = await server.request('POST', '/api/show/shipped', { author: 'Mara', show: 'bad-night' });
    expect(opened.body).toMatchObject({ sentence: 'Opened the shipped show Night Ferry, bad night' });
    const name = async () => (await server.get<ShowReply>('/api/show')).records.show[0]!.name;
    expect(await name()).toBe('Night Ferry, bad night');
    await server.request('POST', '/api/undo', { author: 'Mara' });
    expect(await name()).toBe('Night Ferry');
    expect((await server.request('POST', '/api/show/shipped', { author: 'Mara', show: 'x' })).status).toBe(400);
  });

  test('an edit of the history says what changed; going back undoes everything after it, in one edit', async () => {
    const was = (await lamp(101)).channel;
    const first = ((await move(await lamp(101), 300)).body as Edit).seq;
    await move(await lamp(101), 310);
    await server.request('POST', '/api/edits', {
      author: 'Ivo',
      sentence: 'Added the place Hold',
      changes: [{ kind: 'place', id: 'hold', rev: null, after: { id: 'hold', rev: 0, name: 'Hold', order: 99 } }],
    });
    const details = await server.get<EditReply>(`/api/history/${first}`);
    expect(details).toMatchObject({ author: 'Mara', later: 2, more: 0 });
    expect(details.lines).toEqual([
      { subject: expect.stringMatching(/^lamp 101 .*, start channel$/) as string, before: String(was), after: '300' },
    ]);

    const back = await server.request('POST', `/api/history/${first}/return`, { author: 'Mara' });
    expect([back.status, (back.body as Edit).sentence]).toEqual([201, 'Went back to: Moved lamp 101 to 2/300']);
    expect((await lamp(101)).channel).toBe(300);
    const { records } = await server.get<ShowReply>('/api/show');
    expect(records.place.some(({ id }) => id === 'hold')).toBe(false);
    expect((await server.request('POST', `/api/history/${first}/return`, { author: 'Mara' })).status).toBe(409);

    // After the last edit there is nothing to undo, and nothing is.
    const last = (back.body as Edit).seq;
    expect((await server.request('POST', `/api/history/${last}/return`, { author: 'Mara' })).status).toBe(409);
    expect((await lamp(101)).channel).toBe(300);

    await server.request('POST', '/api/undo', { author: 'Mara' });
    expect((await lamp(101)).channel).toBe(310);
    expect((await server.request('GET', '/api/history/9999')).status).toBe(404);
    expect((await server.request('GET', '/api/history/x')).status).toBe(404);
    await server.request('POST', `/api/history/${first - 1}/return`, { author: 'Mara' });
    expect((await lamp(101)).channel).toBe(was);
  });

  test('nothing of mine to undo is said so', async () => {
    const reply = await server.request('POST', '/api/undo', { author: 'Nobody yet' });
    expect([reply.status, problem(reply).detail]).toEqual([409, 'There is nothing of yours to undo.']);
  });

  test('a stale edit gets 409 with the record as it is and who changed it, and changes nothing', async () => {
    const read = await lamp(102);
    await move(read, 460, 'Ivo');
    const reply = await move(read, 470);
    expect(reply.status).toBe(409);
    expect(reply.headers.get('content-type')).toContain('application/problem+json');
    expect(problem(reply).detail).toMatch(/^Ivo changed this in the meantime/);
    expect(problem(reply).conflicts?.[0]).toMatchObject({ id: read.id, now: { channel: 460 }, by: { author: 'Ivo' } });
    expect((await lamp(102)).channel).toBe(460);
  });

  test.each([
    [{}, 400, /author is missing/],
    ['{"author":', 400, /not well-formed/],
    [
      { author: 'Mara', sentence: 'x', changes: [{ kind: 'lamp', id: 'new', rev: null, after: { id: 'new' } }] },
      400,
      /missing/,
    ],
    [
      { author: 'Mara', sentence: 'x', changes: [{ kind: 'type', id: 'type-haze', rev: 1, after: null }] },
      422,
      /needs its fixture type/,
    ],
  ])('bad edit %# is a sentence and changes nothing', async (body, status, sentence) => {
    const { seq } = await server.get<ShowReply>('/api/show');
    const reply = await server.request('POST', '/api/edits', body);
    expect(reply.status).toBe(status);
    expect(problem(reply).detail).toMatch(sentence);
    expect((await server.get<ShowReply>('/api/show')).seq).toBe(seq);
  });

  test('settings are checked, kept, and those that do not exist are refused', async () => {
    expect((await server.request('PATCH', '/api/settings', { outputRate: 45 })).status).toBe(400);
    expect((await server.request('PATCH', '/api/settings', { volume: 11 })).status).toBe(400);
    const reply = await server.request('PATCH', '/api/settings', { outputRate: 30 });
    expect(reply.body).toMatchObject({ outputRate: 30, outputPriority: 150 });
    expect(await server.get('/api/settings')).toEqual(reply.body);
  });

  test('the API describes every endpoint that it has', async () => {
    const { paths, openapi } = await server.get<{ openapi: string; paths: Record<string, object> }>(
      '/api/openapi.json',
    );
    expect(openapi).toBe('3.1.0');
    const asked = Object.entries(paths).flatMap(([path, methods]) =>
      Object.keys(methods).map(async (method) => {
        // Waits for a fader to move; it is asked where a fader moves.
        if (path === '/api/routes/learn') return [];
        const reply = await server.request(method.toUpperCase(), path, method === 'get' ? undefined : {});
        // Where the path asks for something that is not there, its own handler says so.
        const nothing = reply.status === 404 && /^There is nothing at/.test(problem(reply).detail);
        return nothing ? [`${method} ${path}`] : [];
      }),
    );
    expect((await Promise.all(asked)).flat()).toEqual([]);
    expect(Object.keys(paths).length).toBeGreaterThan(10);
  });

  test('a page may load and do nothing but its own: the usual headers, and a policy', async () => {
    for (const path of ['/', '/api/show', '/api/ghost']) {
      const { headers } = await server.request('GET', path);
      expect(headers.get('content-security-policy')).toMatch(/^default-src 'self'; .*frame-ancestors 'none'$/);
      expect(headers.get('content-security-policy')).not.toMatch(/script-src[^;]*'unsafe-(inline|eval)'/);
      expect(headers.get('x-content-type-options')).toBe('nosniff');
      expect(headers.get('cross-origin-opener-policy')).toBe('same-origin');
    }
  });

  test('what is not there is a problem document', async () => {
    const reply = await server.request('GET', '/api/ghost');
    expect([reply.status, problem(reply).detail]).toEqual([404, 'There is nothing at GET /api/ghost.']);
  });

  const withHeaders = (headers: Record<string, string>): Promise<number> =>
    new Promise((done, failed) => {
      rawRequest({ host: '127.0.0.1', port: server.port, path: '/api/show', headers }, (response) => {
        response.resume();
        done(response.statusCode ?? 0);
      })
        .once('error', failed)
        .end();
    });

  test('a request for another host or from another origin is refused', async () => {
    const own = `127.0.0.1:${server.port}`;
    expect(await withHeaders({ host: own })).toBe(200);
    expect(await withHeaders({ host: own, origin: `http://${own}` })).toBe(200);
    expect(await withHeaders({ host: 'evil.example' })).toBe(403);
    expect(await withHeaders({ host: own, origin: 'http://evil.example' })).toBe(403);
    expect(await withHeaders({ host: own, origin: 'null' })).toBe(403);
  });

  test('a second server on the folder, or on the port, ends with a sentence', async () => {
    const second = await ServerProcess.start(folder);
    expect(await second.ended).toBe(1);
    expect(second.said).toMatch(/^The data folder .* is open in another Taxiarch\. Stop that one first/);
    const other = newFolder();
    const third = await ServerProcess.start(other, [], server.port);
    expect(await third.ended).toBe(1);
    expect(third.said).toMatch(/^TCP port \d+ is used by another program\..*--port/);
    removeFolder(other);
  });
});

test('a UDP port that another program does not share is a sentence', async () => {
  const other = createSocket('udp4');
  await new Promise<void>((done) => other.bind(udpPorts.artnet, '0.0.0.0', done));
  const folder = newFolder();
  const server = await ServerProcess.start(folder);
  expect(await server.ended).toBe(1);
  expect(server.said).toMatch(/^UDP port \d+ is used by another program that does not share it\. Close that program/);
  other.close();
  removeFolder(folder);
});

test('options that make no sense end with a sentence', async () => {
  const bad = await ServerProcess.start(newFolder(), ['--sacn-port', 'many']);
  expect(await bad.ended).toBe(1);
  expect(bad.said).toContain('--sacn-port must be a port number from 1 to 65535, not “many”.');
});

test('reachable by others, it shows nothing but the pairing page until the code is typed', async () => {
  const folder = newFolder();
  const server = await ServerProcess.start(folder, ['--host', '0.0.0.0'], await freePort());
  const form = (code: string) =>
    server.request('POST', '/pair', `code=${code}`, { 'content-type': 'application/x-www-form-urlencoded' });
  expect((await server.request('GET', '/api/show')).status).toBe(401);
  expect((await server.request('GET', '/')).body).toContain('Pair with Taxiarch');
  expect((await server.request('GET', '/rig')).status).toBe(401);
  const code = /Pairing code: (\w+)/.exec(server.said)![1]!;
  const paired = await form(code);
  expect(paired.status).toBe(302);
  const cookie = paired.headers.get('set-cookie')!;
  expect(cookie).toContain('HttpOnly');
  const show = await server.request('GET', '/api/show', undefined, { cookie: cookie.split(';')[0]! });
  expect(show.status).toBe(200);
  const tries = [];
  for (let i = 0; i < 6; i += 1) tries.push((await form('WRONGONE')).status);
  expect(tries).toEqual([403, 403, 403, 403, 403, 429]);
  expect((await form(code)).status).toBe(429);
  await server.stop();
  removeFolder(folder);
});
