/** What leaves a port when its signal is lost and at the start, in simulated time. */
import type { LossOfSignal, PortMerge } from '@taxiarch/core/records';
import { OutputPort } from './outputPort';
import type { PortSettings } from './settings';

const settings = (over: Partial<PortSettings> = {}): PortSettings => ({
  use: 'out',
  protocol: 'sacn',
  low: 1,
  merge: 'htp',
  rdm: false,
  loss: { kind: 'hold', after: 0, over: 0 },
  start: 'wait',
  fixed: 77,
  look: [9, 8],
  ...over,
});

const levels = (first: number) => Uint8Array.of(first, 40);
/** sACN sources are lost after this long. */
const LOST_MS = 2500;

function feed(port: OutputPort, id: string, first: number, now: number, priority = 100): boolean {
  const source = port.source('sacn', id, '127.0.0.9', now);
  if (source) {
    source.priority = priority;
    port.setLevels(source, levels(first), now);
  }
  return source !== undefined;
}

const first = (port: OutputPort, now: number): number | null => port.output(now)?.[0] ?? null;

describe('signal lost', () => {
  /** Level of the first slot at seconds after the loss. */
  function after(loss: LossOfSignal, ...seconds: number[]): (number | null)[] {
    const port = new OutputPort(settings({ loss }), 2);
    feed(port, 'desk', 200, 0);
    expect(first(port, LOST_MS)).toBe(200);
    expect(port.state(LOST_MS + 1)).toBe('lost');
    return seconds.map((second) => first(port, LOST_MS + 1 + second * 1000));
  }

  test('holds for ever', () =>
    expect(after({ kind: 'hold', after: 0, over: 0 }, 0, 10, 100_000)).toEqual([200, 200, 200]));
  test('holds, then black', () =>
    expect(after({ kind: 'hold-black', after: 3, over: 0 }, 0, 2.9, 3.1, 60)).toEqual([200, 200, 0, 0]));
  test('fades to black over its time, after its time', () =>
    expect(after({ kind: 'fade', after: 2, over: 4 }, 1.9, 2, 3, 4, 5, 6, 7)).toEqual([200, 200, 150, 100, 50, 0, 0]));
  test('full', () => expect(after({ kind: 'full', after: 1, over: 0 }, 0.5, 1.5)).toEqual([200, 255]));
  test('a stored look', () => expect(after({ kind: 'look', after: 0, over: 0 }, 0.1)).toEqual([9]));

  test('signal that returns is put out at once, whatever went on', () => {
    const port = new OutputPort(settings({ loss: { kind: 'fade', after: 0, over: 4 } }), 2);
    feed(port, 'desk', 200, 0);
    port.forgetSilent(3000);
    expect(first(port, 5000)).toBe(100);
    feed(port, 'desk', 180, 5000);
    expect(first(port, 5000)).toBe(180);
  });
});

describe('at the start', () => {
  test.each([
    ['wait', null],
    ['black', 0],
    ['look', 9],
  ] as const)('%s', (start, expected) => {
    const port = new OutputPort(settings({ start }), 2);
    expect(first(port, 0)).toBe(expected);
    feed(port, 'desk', 120, 10);
    expect(first(port, 10)).toBe(120);
  });
});

test('off is silent, and a fixed port puts out its value whatever comes', () => {
  const port = new OutputPort(settings({ use: 'fixed' }), 2);
  expect(first(port, 0)).toBe(77);
  port.configure(settings({ use: 'off' }));
  expect(port.output(0)).toBeNull();
});

describe('merging', () => {
  const merged = (
    merge: PortMerge,
    most: number,
    ...fed: readonly [id: string, level: number, at: number, priority?: number][]
  ) => {
    const port = new OutputPort(settings({ merge }), most);
    const taken = fed.map(([id, level, at, priority]) => feed(port, id, level, at, priority));
    return { level: first(port, 100), taken };
  };

  test('the higher wins, or the later', () => {
    expect(merged('htp', 2, ['a', 90, 1], ['b', 60, 2]).level).toBe(90);
    expect(merged('ltp', 2, ['a', 90, 1], ['b', 60, 2]).level).toBe(60);
  });
  test('the priority wins over the level', () =>
    expect(merged('priority', 2, ['a', 90, 1, 100], ['b', 60, 2, 120]).level).toBe(60));
  test('no more sources than the model merges, and one only without a merge', () => {
    expect(merged('htp', 2, ['a', 1, 1], ['b', 2, 1], ['c', 3, 1])).toEqual({ level: 2, taken: [true, true, false] });
    expect(merged('htp', 4, ['a', 1, 1], ['b', 2, 1], ['c', 3, 1]).level).toBe(3);
    expect(merged('none', 2, ['a', 1, 1], ['b', 2, 1])).toEqual({ level: 1, taken: [true, false] });
  });
  test('a cancelled merge keeps the last who came', () => {
    const port = new OutputPort(settings(), 2);
    feed(port, 'a', 90, 0);
    feed(port, 'b', 60, 1);
    port.cancelMerge();
    expect(first(port, 2)).toBe(60);
  });
});
