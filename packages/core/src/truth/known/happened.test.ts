import { Happenings, type HappeningNow } from '.';

type Stream = HappeningNow['universes'][number]['streams'][number];
const stream = (name: string, over: Partial<Stream> = {}): Stream =>
  ({ name, address: '', cid: name, priority: 100, lost: false, own: false, preview: false, ...over }) as Stream;
const universe = (show: number, ...streams: Stream[]) => ({ key: show, show, streams });
const now = (at: number, universes: object[] = [], nodes: object[] = [], hot = false) =>
  ({ at, universes, nodes, output: { hot, by: 'Ada' } }) as unknown as HappeningNow;
const quay = (gone: boolean) => ({ address: '127.0.0.37', mac: 'm', shortName: 'Quay node', gone });

test('what is there at the first look did not happen', () => {
  const happened = new Happenings();
  happened.look(now(1000, [universe(1, stream('Bridge desk'))], [quay(false)]));
  expect(happened.list(1000)).toEqual([]);
});

test('a sender that is lost is told once for all its universes, with who has them now', () => {
  const happened = new Happenings();
  const stern = stream('Stern desk', { priority: 90 });
  happened.look(now(1000, [universe(2, stream('Bridge desk')), universe(3, stream('Bridge desk'), stern)]));
  const gone = stream('Bridge desk', { lost: true });
  happened.look(now(2000, [universe(2, gone), universe(3, gone, stern)]));
  expect(happened.list(2000)).toEqual([
    { at: 2000, kind: 'lost', says: 'Bridge desk was lost on 2-3; Stern desk has 3 now.' },
  ]);
  happened.look(now(3000, [universe(2, stream('Bridge desk')), universe(3, stream('Bridge desk'), stern)]));
  expect(happened.list(3000)[0]).toEqual({ at: 3000, kind: 'back', says: 'Bridge desk sends 2-3.' });
});

test('with nobody left that is said too', () => {
  const happened = new Happenings();
  happened.look(now(1000, [universe(2, stream('Bridge desk'))]));
  happened.look(now(2000, [universe(2, stream('Bridge desk', { lost: true }))]));
  expect(happened.list(2000)[0]!.says).toBe('Bridge desk was lost on 2; nobody has taken over.');
});

test('boxes that go and come back, hot and safe; newest first, for an hour', () => {
  const happened = new Happenings();
  happened.look(now(1000, [], [quay(false)]));
  happened.look(now(2000, [], [quay(true)]));
  happened.look(now(3000, [], [quay(false)], true));
  happened.look(now(4000, [], [quay(false)], false));
  expect(happened.list(4000).map(({ says }) => says)).toEqual([
    'Taxiarch is safe again.',
    'Quay node answers at 127.0.0.37.',
    'Taxiarch was made hot by Ada.',
    'Quay node does not answer any more.',
  ]);
  expect(happened.list(4000 + 3_600_000)).toHaveLength(1);
});
