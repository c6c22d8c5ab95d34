/** Threads that throw or hang are seen to: said at once, started again, and never hot by themselves. */
import type { LiveReport, Problem } from '@taxiarch/core/whole/contract';
import { WebSocket } from 'ws';
import { addPlace, placesOf } from '../testing/kills';
import { ServerProcess, eventually, newFolder, removeFolder } from '../testing/serverProcess';

jest.setTimeout(180_000);

const folder = newFolder();
let server: ServerProcess;
beforeAll(async () => (server = await ServerProcess.start(folder, ['--breakable'])));
afterAll(async () => {
  const code = await server.stop();
  if (code !== 0) throw new Error(`It ended with ${String(code)}:\n${server.said}`);
  removeFolder(folder);
});

const live = () => server.get<LiveReport>('/api/live');
const works = (report: LiveReport) => Array.isArray(report.universes) && report.age === 0;
const notice = (id: string) => async () => {
  const report = await live();
  return works(report) ? report.notices.find((one) => one.id === id) : undefined;
};
const dismiss = (id: string) => server.request('POST', '/api/notices/dismiss', { id });

describe.each([
  ['engine', 'throw'],
  ['engine', 'hang'],
  ['receiver', 'throw'],
  ['receiver', 'hang'],
] as const)('%s, made to %s', (thread, how) => {
  test.each([false, true])('hot: %s', async (hot) => {
    await server.request('POST', '/api/output/hot', { hot, by: 'Mara' });
    if (hot)
      await server.request('POST', '/api/output/take', {
        client: 'mara',
        by: 'Mara',
        slots: { '3/1': 50 },
        stay: true,
      });
    await dismiss(thread);
    server.type(`break ${thread} ${how}`);
    const said = await eventually(notice(thread), (one) => one?.sentence.includes('started again after') === true);
    expect(said!.sentence).toContain(how === 'throw' ? 'broken on purpose' : 'no sign for 2 s');
    const report = await eventually(live, works);
    // The engine holds what is taken: with it goes hot. The receiving thread sends nothing.
    expect(report.output.hot).toBe(hot && thread === 'receiver');
    expect(report.output.holds).toHaveLength(hot && thread === 'receiver' ? 1 : 0);
    await server.request('POST', '/api/output/hot', { hot: false, by: 'Mara' });
  });
});

test('what waits for an engine that fails gets a sentence, and nothing old is given as now', async () => {
  const learning = server.request('POST', '/api/routes/learn');
  await server.get('/api/routes');
  server.type('break engine hang');
  expect(await learning).toMatchObject({ status: 503, body: { type: 'urn:taxiarch:problem:not-ready' } });
  const meanwhile = await server.request('GET', '/api/live');
  if (meanwhile.status === 503) expect((meanwhile.body as Problem).detail).toMatch(/engine/);
  else expect((meanwhile.body as LiveReport).age).toBeLessThan(2000);
  await eventually(live, works);
});

test('a thread that looks for faults fails alone, and looks again', async () => {
  server.type('break findings throw');
  await eventually(notice('findings'), (one) => one !== undefined);
  const found = await eventually(
    () => server.request('GET', '/api/findings'),
    (reply) => reply.status === 200,
  );
  expect(found.body).toMatchObject({ findings: [] });
});

test('the part that keeps the show fails: it is started again, nothing is lost, what was hot goes on, and pages read anew', async () => {
  await server.request('POST', '/api/output/hot', { hot: true, by: 'Mara' });
  await server.request('POST', '/api/output/take', { client: 'mara', by: 'Mara', slots: { '3/1': 50 }, stay: true });
  expect((await addPlace(server, 'kept')).status).toBe(201);
  const feed = new WebSocket(`ws://127.0.0.1:${server.port}/feed?client=reader`);
  const reread = new Promise((done) =>
    feed.on('message', (data, binary) => !binary && String(data as Buffer).includes('"reread"') && done(true)),
  );
  await new Promise((open) => feed.once('open', open));
  server.type('break show throw');
  const said = await eventually(notice('show'), (one) => one?.sentence.includes('started again after') === true);
  expect(said!.sentence).toContain('broken on purpose');
  expect(await reread).toBe(true);
  expect(await placesOf(server)).toContain('kept');
  expect((await live()).output).toMatchObject({ hot: true, holds: [{ universe: 3 }] });
  expect((await addPlace(server, 'after')).status).toBe(201);
  feed.close();
  await server.request('POST', '/api/output/hot', { hot: false, by: 'Mara' });
});
