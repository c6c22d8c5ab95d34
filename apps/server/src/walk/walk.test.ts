/** Walks over HTTP: shared by phones, lit and given back, and marks that are there exactly once. */
import { randomUUID } from 'node:crypto';
import type {
  CoveredReply,
  GivenMark,
  Problem,
  ShowReply,
  StepReply,
  StepRequest,
} from '@taxiarch/core/whole/contract';
import { PLAIN_MARK, type Walk } from '@taxiarch/core/show/records';
import { WHOLE_WALK, type WalkReply } from '@taxiarch/core/proving/walk';
import type { OutputReport } from '@taxiarch/core/whole/contract';
import { ServerProcess, newFolder, removeFolder } from '../testing/serverProcess';

jest.setTimeout(180_000);

const folder = newFolder();
let server: ServerProcess;
beforeAll(async () => (server = await ServerProcess.start(folder)));
afterAll(async () => {
  await server.stop();
  removeFolder(folder);
});

const post = async <T>(path: string, body: object): Promise<T> => {
  const { status, body: reply } = await server.request('POST', path, body);
  if (status >= 300) throw new Error((reply as Problem).detail);
  return reply as T;
};
const records = async () => (await server.get<ShowReply>('/api/show')).records;

async function begin(over: Partial<Walk> = {}, covers = { kind: 'universe', id: '1', part: '' }): Promise<Walk> {
  const { lampIds } = await post<CoveredReply>('/api/walks/cover', { covers, order: 'number', chosen: [] });
  const after = {
    ...{ id: randomUUID(), rev: 0, name: 'A walk', by: 'Mira', at: new Date().toISOString(), covers, order: 'number' },
    ...{ unit: 'lamp', pictures: ['full'], lampIds, ...over },
  } as Walk;
  const changes = [{ kind: 'walk', id: after.id, rev: null, after }];
  await post('/api/edits', { author: 'Mira', sentence: 'Began a walk', changes });
  return after;
}
const step = (walk: Walk, walker: string, over: Partial<StepRequest> = {}) =>
  post<StepReply>(`/api/walks/${walk.id}/step`, {
    ...{ walker, by: walker, part: WHOLE_WALK, want: 'next', from: '', this: '', done: [] },
    ...over,
  });
const { stood: _, ...PLAIN } = PLAIN_MARK;
const mark = (lampId: string, over: Partial<GivenMark> = {}): GivenMark => ({
  ...{ ...PLAIN, id: randomUUID(), lampId, result: 'proved', by: 'Mira', at: new Date().toISOString() },
  ...over,
});
const send = (walk: Walk, marks: readonly GivenMark[]) =>
  post<{ stored: number; known: number }>(`/api/walks/${walk.id}/marks`, { marks });
const sendPhoto = (body: Uint8Array) =>
  fetch(`http://127.0.0.1:${server.port}/api/photos`, { method: 'POST', body: Buffer.from(body) });

test('two phones are never given the same lamp, and together come to every lamp once', async () => {
  const walk = await begin();
  const met: string[] = [];
  const at: Record<string, string> = { a: '', b: '' };
  const done: string[] = [];
  for (let ended = 0; ended < 2;) {
    ended = 0;
    const replies = await Promise.all(
      ['a', 'b'].map(async (walker) => [walker, await step(walk, walker, { from: at[walker]!, done })] as const),
    );
    for (const [walker, reply] of replies) {
      at[walker] = reply.at;
      if (reply.at === '') ended += 1;
      else met.push(reply.at);
    }
    expect(at['a'] === '' || at['a'] !== at['b']).toBe(true);
    done.push(...Object.values(at).filter((key) => key !== '' && !done.includes(key)));
  }
  expect([...met].sort()).toEqual([...walk.lampIds].sort());
});

test('what is in somebody’s hand is refused by their name; once they leave it is open', async () => {
  const walk = await begin();
  const [first] = walk.lampIds as [string, ...string[]];
  await step(walk, 'Jory');
  await expect(step(walk, 'Mira', { want: 'this', this: first })).rejects.toThrow('Jory has this lamp in hand.');
  const mira = await step(walk, 'Mira');
  expect([mira.at, mira.others.map(({ by, at }) => [by, at])]).toEqual([walk.lampIds[1], [['Jory', first]]]);
  // Who walks is told to nobody by what would let them act as that phone.
  expect(mira.others[0]!.id).not.toBe('Jory');
  await server.request('POST', `/api/walks/${walk.id}/leave`, { walker: 'Jory' });
  expect((await step(walk, 'Mira', { want: 'this', this: first })).at).toBe(first);
});

test('the lamp in hand is lit while hot, follows on, and is given back when its phone leaves', async () => {
  const walk = await begin();
  const light = { speed: 1, level: 1 };
  expect(await step(walk, 'Mira', { light })).toMatchObject({ lighting: 'safe' });
  await post('/api/output/hot', { hot: true, by: 'Mira' });
  const output = () => server.get<OutputReport>('/api/output');
  const all = await records();
  const slots = async () => (await output()).holds.map(({ universe, runs }) => [universe, runs]);
  const lampAt = (key: string) => all.lamp.find(({ id }) => id === key)!;
  const first = await step(walk, 'Mira', { want: 'this', this: walk.lampIds[0]!, light });
  expect(first.lighting).toBe('on');
  const [[universe, runs]] = (await slots()) as [[number, [number, number][]]];
  expect([universe, runs[0]![0]]).toEqual([lampAt(first.at).universe, lampAt(first.at).channel]);
  const second = await step(walk, 'Mira', { from: first.at, light });
  expect((await slots()).flatMap(([, at]) => at as [number, number][]).map(([from]) => from)).toEqual([
    lampAt(second.at).channel,
  ]);
  // Given back by somebody else, it stays dark until the person wants it lit.
  await post('/api/output/give-back', {});
  expect(await step(walk, 'Mira', { want: 'stay', from: second.at, light })).toMatchObject({
    lighting: 'off',
    at: second.at,
  });
  expect(await slots()).toEqual([]);
  await step(walk, 'Mira', { want: 'this', this: second.at, light });
  await server.request('POST', `/api/walks/${walk.id}/leave`, { walker: 'Mira' });
  expect(await slots()).toEqual([]);
  await post('/api/output/hot', { hot: false, by: 'Mira' });
});

test('marks are there exactly once and in order, however often and from wherever they come', async () => {
  const walk = await begin();
  const { seq: knew } = await server.get<ShowReply>('/api/show');
  const marks = walk.lampIds.map((id, i) =>
    mark(id, { knew, at: new Date(1_790_000_000_000 + i * 1000).toISOString() }),
  );
  // Torn connections: parts of it again, at once, and the whole again.
  const replies = await Promise.all([
    send(walk, marks.slice(0, 5)),
    send(walk, marks.slice(3, 8)),
    send(walk, [...marks.slice(0, 8), ...marks.slice(0, 2)]),
    send(walk, marks),
  ]);
  expect(replies.reduce((sum, { stored }) => sum + stored, 0)).toBe(marks.length);
  expect(await send(walk, marks)).toEqual({ stored: 0, known: marks.length });
  const there = (await records()).mark.filter(({ walkId }) => walkId === walk.id);
  expect(there.map(({ id }) => id).sort()).toEqual(marks.map(({ id }) => id).sort());
  const { sentence } = await server.get<WalkReply>(`/api/walks/${walk.id}`);
  expect(sentence).toBe(`${marks.length} of ${marks.length} lamps proved.`);
});

test('a walk covers what failed in another', async () => {
  const walk = await begin();
  const [one, two, three] = walk.lampIds as [string, string, string];
  await send(walk, [
    mark(one),
    mark(two, { result: 'failed', why: 'dark' }),
    mark(three),
    mark(three, { result: 'failed', why: 'other', by: 'Jory' }),
  ]);
  const covers = { kind: 'failed', id: walk.id, part: '' };
  const { lampIds } = await post<CoveredReply>('/api/walks/cover', { covers, order: 'number', chosen: [] });
  expect(lampIds).toEqual([two, three]);
});

test('a photograph is kept with its mark and given again; what is none is refused', async () => {
  const jpeg = Uint8Array.of(0xff, 0xd8, 0xff, 0xe0, 1, 2, 3);
  const { sha256 } = (await (await sendPhoto(jpeg)).json()) as { sha256: string };
  const walk = await begin();
  await send(walk, [mark(walk.lampIds[0]!, { result: 'failed', why: 'other', photo: sha256 })]);
  const again = await fetch(`http://127.0.0.1:${server.port}/api/photos/${sha256}`);
  expect([again.headers.get('content-type'), [...new Uint8Array(await again.arrayBuffer())]]).toEqual([
    'image/jpeg',
    [...jpeg],
  ]);
  expect((await sendPhoto(Uint8Array.of(1, 2, 3))).status).toBe(400);
});

test('a walk in which something was marked stays', async () => {
  const walk = await begin();
  await send(walk, [mark(walk.lampIds[0]!)]);
  const { rev } = (await records()).walk.find(({ id }) => id === walk.id)!;
  const gone = await server.request('POST', '/api/edits', {
    ...{ author: 'Mira', sentence: 'Removed a walk' },
    changes: [{ kind: 'walk', id: walk.id, rev, after: null }],
  });
  expect((gone.body as Problem).detail).toBe('A walk in which something was marked stays: its marks stand in it.');
});
