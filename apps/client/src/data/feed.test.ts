import { encodeUniverseFrame, type UniverseFrame } from '@taxiarch/core/contract';
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
  expect(latest().sent).toEqual([
    { type: 'watch', keys: [7] },
    { type: 'inspect', key: 7, slot: 3 },
  ]);
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
