import { encodeLevelsFrame, encodeUniverseFrame, type UniverseFrame } from '@taxiarch/core/whole/contract/feed';
import { nightFerry } from '@taxiarch/core/whole/demo';
import { liveOf } from '@/testing/server';
import { FeedClient } from './feed';

/** A WebSocket whose other end is the test. */
class FakeSocket {
  static readonly OPEN = 1;
  static all: FakeSocket[] = [];
  readyState = 0;
  binaryType = '';
  sent: unknown[] = [];
  onopen = () => undefined as void;
  onclose = () => undefined as void;
  onmessage = (_: { data: unknown }) => undefined as void;
  constructor(readonly url: string) {
    FakeSocket.all.push(this);
  }
  open() {
    this.readyState = 1;
    this.onopen();
  }
  close() {
    this.readyState = 3;
    this.onclose();
  }
  send(data: unknown) {
    this.sent.push(typeof data === 'string' ? JSON.parse(data) : data);
  }
}

beforeEach(() => {
  jest.useFakeTimers();
  FakeSocket.all = [];
  Object.assign(globalThis, { WebSocket: FakeSocket });
});
afterEach(() => jest.useRealTimers());

const latest = () => FakeSocket.all[FakeSocket.all.length - 1]!;
const frame = (key: number, level: number) =>
  encodeUniverseFrame(key, 2, new Uint8Array(512).fill(level), new Uint8Array(512)).buffer;

test('a universe is asked for once, shared by its watchers, and let go with the last', () => {
  const feed = new FeedClient('ws://test');
  feed.connect();
  latest().open();
  const seen: number[] = [];
  const watch = () => feed.watch(5, ({ values }: UniverseFrame) => seen.push(values[0]!));
  const stops = [watch(), watch()];
  latest().onmessage({ data: frame(5, 40) });
  latest().onmessage({ data: frame(6, 90) });
  expect(seen).toEqual([40, 40]);
  stops.push(watch());
  expect(seen).toEqual([40, 40, 40]);
  stops.forEach((stop) => stop());
  const watches = latest().sent.filter((one) => (one as { type: string }).type === 'watch');
  expect(watches).toEqual([
    { type: 'watch', keys: [] },
    { type: 'watch', keys: [5] },
    { type: 'watch', keys: [] },
  ]);
});

test('a lost connection is taken up again, with all that was watched', () => {
  const feed = new FeedClient('ws://test');
  let returns = 0;
  feed.returned.on(() => (returns += 1));
  feed.connect();
  latest().open();
  feed.watch(7, () => undefined);
  feed.inspect({ key: 7, slot: 3 });
  expect([feed.connected, returns]).toEqual([true, 0]);
  latest().close();
  expect(feed.connected).toBe(false);
  jest.advanceTimersByTime(300);
  expect(FakeSocket.all).toHaveLength(2);
  latest().close();
  jest.advanceTimersByTime(300);
  expect(FakeSocket.all).toHaveLength(2);
  jest.advanceTimersByTime(300);
  expect(FakeSocket.all).toHaveLength(3);
  latest().open();
  expect(latest().sent).toEqual([{ type: 'here' }, { type: 'watch', keys: [7] }, { type: 'inspect', key: 7, slot: 3 }]);
  expect([feed.connected, returns]).toEqual([true, 1]);
});

test('a connection that hangs is given up and tried again', () => {
  const feed = new FeedClient('ws://test');
  feed.connect();
  jest.advanceTimersByTime(3900);
  expect(FakeSocket.all).toHaveLength(1);
  jest.advanceTimersByTime(400);
  expect(FakeSocket.all).toHaveLength(2);
});

test('a server that falls silent is given up within three seconds; one that says it is there is not', () => {
  const feed = new FeedClient('ws://test');
  feed.begin();
  const first = latest();
  first.open();
  for (let i = 0; i < 10; i += 1) {
    jest.advanceTimersByTime(1000);
    first.onmessage({ data: JSON.stringify({ type: 'there' }) });
  }
  expect(feed.connected).toBe(true);
  expect(first.sent.filter((one) => (one as { type: string }).type === 'here')).toHaveLength(11);
  jest.advanceTimersByTime(3300);
  expect(feed.connected).toBe(false);
  // What comes after all from a connection given up counts no more.
  first.onmessage({ data: frame(5, 1) });
  jest.advanceTimersByTime(300);
  expect(FakeSocket.all).toHaveLength(2);
});

test('a report stands for two seconds; then nothing is known of now, and the last is still known as old', () => {
  const feed = new FeedClient('ws://test');
  feed.begin();
  latest().open();
  const live = liveOf(nightFerry());
  let told = 0;
  feed.live.on(() => (told += 1));
  feed.hear(live);
  jest.advanceTimersByTime(1900);
  expect([feed.now() === live, told]).toEqual([true, 1]);
  jest.advanceTimersByTime(500);
  expect([feed.now(), feed.lastKnown() === live, told]).toEqual([undefined, true, 2]);
  // The server itself may say that what it has is old.
  feed.hear({ ...live, age: 2600 });
  expect([feed.now(), Math.round(feed.age()! / 100)]).toEqual([undefined, 26]);
  feed.hear(live);
  expect(feed.now()).toBe(live);
});

test('levels that were set while the connection was away are sent when it is back, the last of each slot', () => {
  const feed = new FeedClient('ws://test');
  feed.connect();
  feed.sendLevels(7, [
    [1, 40],
    [2, 50],
  ]);
  feed.sendLevels(7, [[1, 99]]);
  latest().open();
  const frames = latest().sent.filter((one): one is Uint8Array => one instanceof Uint8Array);
  expect(frames).toEqual([
    encodeLevelsFrame(7, [
      [1, 99],
      [2, 50],
    ]),
  ]);
});
