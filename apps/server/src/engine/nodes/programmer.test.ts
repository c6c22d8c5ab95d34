import { decodeArtNet, encodeAddress } from '@taxiarch/core/protocol/artnet';
import { program, type ProgrammerWire } from './programmer';

/** A node on a wire in simulated time: it answers polls at `address` after `delay` ms. */
class Bench implements ProgrammerWire {
  readonly sent: { kind: string; to: string }[] = [];
  lastSeen = -1;
  /** Milliseconds between its pages */
  between = 0;
  private time = 0;

  constructor(
    public address: string,
    private readonly delay: number,
  ) {}

  now = () => this.time;
  pages = [0];
  allPagesSince = (since: number) => this.pages.every((at) => at > since);
  whereIs = () => (this.lastSeen < 0 ? undefined : { address: this.address, lastSeen: this.lastSeen });

  send(bytes: Uint8Array, to: string): void {
    const decoded = decodeArtNet(bytes);
    const kind = decoded.ok ? decoded.value.kind : decoded.reason;
    this.sent.push({ kind, to });
    if (kind === 'poll' && to === this.address) this.answerSoon();
  }

  pollAll(): void {
    this.sent.push({ kind: 'poll', to: 'everybody' });
    this.answerSoon();
  }

  private answerSoon(): void {
    this.pages.forEach((_, page) =>
      setTimeout(() => (this.pages[page] = this.lastSeen = this.time), this.delay + page * this.between),
    );
  }

  async run(ms: number): Promise<void> {
    for (let passed = 0; passed < ms; passed += 5) {
      this.time += 5;
      await jest.advanceTimersByTimeAsync(5);
    }
  }
}

beforeEach(() => jest.useFakeTimers());
afterEach(() => jest.useRealTimers());

const PACKETS = [encodeAddress({ portName: 'A' }), encodeAddress({ command: 4 })];

test('packets go one after the other, then a poll, then the question for its mask', async () => {
  const bench = new Bench('127.0.0.40', 10);
  const done = program(bench, '127.0.0.40', PACKETS);
  await bench.run(300);
  expect(await done).toBeUndefined();
  expect(bench.sent.map(({ kind }) => kind)).toEqual(['address', 'address', 'poll', 'ipProg']);
});

test('an answer of before the poll does not count', async () => {
  const bench = new Bench('127.0.0.40', 400);
  bench.lastSeen = 0;
  let settled = false;
  void program(bench, '127.0.0.40', PACKETS).then(() => (settled = true));
  await bench.run(300);
  expect(settled).toBe(false);
  await bench.run(400);
  expect(settled).toBe(true);
});

test('a node that moved is found by asking everybody, and asked for its mask where it is now', async () => {
  const bench = new Bench('127.0.0.50', 10);
  const done = program(bench, '127.0.0.40', PACKETS);
  await bench.run(900);
  expect(await done).toBeUndefined();
  expect(bench.sent.filter(({ to }) => to === 'everybody').length).toBeGreaterThan(0);
  expect(bench.sent.at(-1)).toEqual({ kind: 'ipProg', to: '127.0.0.50' });
});

test('one that never answers is given up after its time, with a sentence', async () => {
  const bench = new Bench('127.0.0.50', 1_000_000);
  const done = program(bench, '127.0.0.40', PACKETS);
  await bench.run(3000);
  expect(await done).toBe('127.0.0.40 does not answer. Look at its cable and its address.');
});

test('all its pages are waited for, which may come over a second', async () => {
  const bench = new Bench('127.0.0.40', 10);
  bench.pages = [0, 0, 0];
  bench.between = 400;
  let settled = false;
  void program(bench, '127.0.0.40', []).then(() => (settled = true));
  await bench.run(700);
  expect(settled).toBe(false);
  await bench.run(400);
  expect(settled).toBe(true);
  expect(bench.sent[0]!.kind).toBe('poll');
});

test('a poll that is lost is asked again', async () => {
  const bench = new Bench('127.0.0.40', 10);
  const answer = bench.send.bind(bench);
  let lost = 1;
  bench.send = (bytes, to) => (lost-- > 0 ? undefined : answer(bytes, to));
  const done = program(bench, '127.0.0.40', []);
  await bench.run(600);
  expect(await done).toBeUndefined();
});
