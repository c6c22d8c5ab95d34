import { syncsOf, type StreamReport, type SyncReport, type UniverseReport } from '.';

const stream = (over: Partial<StreamReport>): StreamReport =>
  ({
    name: 'Desk',
    address: '10.0.0.5',
    cid: 'c',
    lost: false,
    waits: false,
    syncAddress: 90,
    ...over,
  }) as StreamReport;
const sync = (over: Partial<SyncReport>): SyncReport => ({
  protocol: 'sacn',
  universe: 90,
  cid: 'c',
  address: '10.0.0.5',
  rate1: 44,
  missing: 0,
  late: 0,
  firstSeen: 0,
  lastSeen: 10_000,
  ...over,
});
const universe = (key: number, ...streams: StreamReport[]): UniverseReport =>
  ({ key, streams }) as unknown as UniverseReport;
const of = (streams: StreamReport[], syncs: SyncReport[], at = 10_020) =>
  syncsOf(
    streams,
    syncs,
    [universe(1, ...streams), universe(2, stream({ syncAddress: 90 })), universe(3, stream({ syncAddress: 0 }))],
    at,
  );

test('who synchronises is known by name, and for which universes', () => {
  expect(of([stream({})], [sync({}), sync({ universe: 91 })])).toMatchObject([
    { universe: 90, source: { name: 'Desk' }, state: 'steady', keys: [1, 2], waits: false },
  ]);
});

test.each([
  [10_900, 'steady'],
  [11_500, 'late'],
  [12_600, 'missing'],
])('at %i it is %s', (at, state) =>
  expect(of([stream({ waits: true })], [sync({})], at)).toMatchObject([{ state, waits: true }]),
);

test('asked for and never heard is missing; asked for by nobody is nothing', () => {
  expect(of([stream({})], [])).toMatchObject([{ source: undefined, state: 'missing' }]);
  expect(of([stream({ syncAddress: 0 })], [sync({})])).toEqual([]);
  expect(of([stream({ lost: true })], [sync({})])).toEqual([]);
});

test('ArtSync is for all that its own sender sends', () => {
  const art = { cid: '', syncAddress: 0 };
  const syncs = [sync({ protocol: 'artnet', universe: 0, cid: '' })];
  expect(of([stream(art)], syncs)).toMatchObject([{ universe: 0, keys: [1], state: 'steady' }]);
  expect(of([stream({ ...art, address: '10.0.0.6' })], syncs)).toEqual([]);
});
