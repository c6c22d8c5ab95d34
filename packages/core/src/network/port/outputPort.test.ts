/** What leaves a port when its signal is lost and at the start, in simulated time. */
import type { LossOfSignal, PortMerge } from '../../show/records';
import { OutputPort, type PortRules, type SacnPacket } from './outputPort';

const settings = (over: Partial<PortRules> = {}): PortRules => ({
  use: 'out',
  protocol: 'sacn',
  wire: 1,
  merge: 'htp',
  loss: { kind: 'hold', after: 0, over: 0 },
  start: 'wait',
  fixed: 77,
  look: [9, 8],
  ...over,
});

const levels = (first: number) => Uint8Array.of(first, 40);
/** sACN sources are lost after this long. */
const LOST_MS = 2500;

let sequence = 0;
const packet = (id: string, slots: Uint8Array, over: Partial<SacnPacket> = {}): SacnPacket => ({
  id,
  address: '127.0.0.9',
  name: id,
  priority: 100,
  sequence: (sequence = (sequence + 1) & 0xff),
  startCode: 0,
  slots,
  terminated: false,
  preview: false,
  syncAddress: 0,
  forceSync: false,
  ...over,
});

/** Returns whether the source has a place. */
function feed(port: OutputPort, id: string, first: number, now: number, priority = 100): boolean {
  port.sacn(packet(id, levels(first), { priority }), now);
  return port.sources.some((source) => source.id === id);
}

const first = (port: OutputPort, now: number): number | null => port.output(now)?.[0] ?? null;

describe('signal lost', () => {
  /** Level of the first slot at seconds after the loss. */
  function after(loss: LossOfSignal, ...seconds: number[]): (number | null)[] {
    const port = new OutputPort(settings({ loss }), { sources: 2 });
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
    const port = new OutputPort(settings({ loss: { kind: 'fade', after: 0, over: 4 } }), { sources: 2 });
    feed(port, 'desk', 200, 0);
    port.state(3000);
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
    const port = new OutputPort(settings({ start }), { sources: 2 });
    expect(first(port, 0)).toBe(expected);
    feed(port, 'desk', 120, 10);
    expect(first(port, 10)).toBe(120);
  });
});

test('off is silent, and a fixed port puts out its value whatever comes', () => {
  const port = new OutputPort(settings({ use: 'fixed' }), { sources: 2 });
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
    const port = new OutputPort(settings({ merge }), { sources: most });
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
  test('a cancelled merge keeps the sender of the next packet, and others only when they have been silent', () => {
    const port = new OutputPort(settings(), { sources: 2 });
    feed(port, 'a', 90, 0);
    feed(port, 'b', 60, 1);
    port.cancelMerge();
    expect(first(port, 2)).toBe(90);
    feed(port, 'b', 61, 3);
    expect(first(port, 4)).toBe(61);
    expect(feed(port, 'a', 90, 5)).toBe(false);
    for (let now = 500; now < 3000; now += 500) feed(port, 'b', 62, now);
    expect(feed(port, 'a', 91, 3000)).toBe(true);
    expect(first(port, 3001)).toBe(91);
  });
  test('cleared, it is dark until others come', () => {
    const port = new OutputPort(settings(), { sources: 2 });
    feed(port, 'a', 90, 0);
    port.clear();
    expect(first(port, 1)).toBe(0);
    feed(port, 'a', 91, 2);
    expect(first(port, 2)).toBe(91);
  });
  test('sACN priority goes before the limit of sources, unless the model cannot', () => {
    const able = new OutputPort(settings(), { sources: 2 });
    for (const id of ['a', 'b']) feed(able, id, 50, 0);
    expect([feed(able, 'equal', 200, 1), first(able, 1)]).toEqual([false, 50]);
    expect([feed(able, 'high', 20, 2, 150), first(able, 2)]).toEqual([true, 20]);
    expect(able.refused.map(({ id }) => id)).toContain('equal');
    const unable = new OutputPort(settings(), { sources: 2, priorityFirst: false });
    for (const id of ['a', 'b']) feed(unable, id, 50, 0);
    expect([feed(unable, 'high', 20, 2, 150), first(unable, 2)]).toEqual([false, 50]);
  });
  test('merging is said only while two really have a say', () => {
    const port = new OutputPort(settings(), { sources: 4 });
    feed(port, 'a', 50, 0);
    expect(port.merging).toBe(false);
    feed(port, 'b', 60, 1, 90);
    expect(port.merging).toBe(false);
    feed(port, 'c', 60, 1);
    expect(port.merging).toBe(true);
    const slots = new Uint8Array(512);
    for (const id of ['a', 'c'])
      port.sacn(packet(id, Uint8Array.from(slots).fill(id === 'a' ? 100 : 0), { startCode: 0xdd }), 2);
    expect(port.merging).toBe(false);
  });
});

describe('Art-Net', () => {
  const art = (address: string, level: number, physical = 0) => ({ address, physical, slots: Uint8Array.of(level, 0) });

  test('merges two at most, whatever the size of the box; inputs of one sender are two', () => {
    const port = new OutputPort(settings({ protocol: 'artnet' }), { sources: 16 });
    port.artnet(art('10.0.0.1', 50), 0);
    port.artnet(art('10.0.0.1', 60, 1), 1);
    port.artnet(art('10.0.0.2', 200), 2);
    expect(first(port, 3)).toBe(60);
    expect(port.refused.map(({ address }) => address)).toEqual(['10.0.0.2']);
  });

  test('levels wait for their sender’s ArtSync, and not while two are merged', () => {
    const port = new OutputPort(settings({ protocol: 'artnet' }), { sources: 2 });
    port.artnet(art('10.0.0.1', 50), 0);
    port.artSync('10.0.0.1', 1);
    port.artnet(art('10.0.0.1', 60), 2);
    expect(first(port, 3)).toBe(50);
    port.artSync('10.0.0.1', 4);
    expect(first(port, 4)).toBe(60);
    port.artnet(art('10.0.0.2', 10), 5);
    port.artnet(art('10.0.0.1', 70), 6);
    expect(first(port, 6)).toBe(70);
  });

  test('a sender that fell silent has its say for ten seconds, and its signal comes in no more after two and a half', () => {
    const port = new OutputPort(settings({ protocol: 'artnet' }), { sources: 2 });
    port.artnet(art('10.0.0.1', 50), 0);
    expect([port.passes(2400), port.state(2400)]).toEqual([true, 'fed']);
    expect([port.passes(3000), port.state(3000), first(port, 3000)]).toEqual([false, 'fed', 50]);
    expect([port.passes(11_000), port.state(11_000)]).toEqual([false, 'lost']);
  });
  test('says nothing on a port that is set to sACN', () => {
    const port = new OutputPort(settings(), { sources: 2 });
    port.artnet(art('10.0.0.1', 50), 0);
    expect(port.state(1)).toBe('waiting');
  });
});

test('sACN levels wait for their synchronisation packet once one was heard', () => {
  const port = new OutputPort(settings(), { sources: 2 });
  const synced = { syncAddress: 90 };
  port.sacn(packet('a', levels(10), synced), 0);
  expect(first(port, 0)).toBe(10);
  port.sacnSync(90, 1);
  port.sacn(packet('a', levels(20), synced), 2);
  expect(first(port, 3)).toBe(10);
  port.sacnSync(90, 4);
  expect(first(port, 4)).toBe(20);
});

test('a late packet, a preview and a stream that ended have no say', () => {
  const port = new OutputPort(settings(), { sources: 2 });
  port.sacn(packet('a', levels(10), { sequence: 50 }), 0);
  port.sacn(packet('a', levels(20), { sequence: 49 }), 1);
  port.sacn(packet('b', levels(99), { preview: true }), 1);
  expect(first(port, 2)).toBe(10);
  port.sacn(packet('a', levels(10), { sequence: 51, terminated: true }), 3);
  expect(port.state(4)).toBe('lost');
});

test('turned to another universe, it begins anew', () => {
  const port = new OutputPort(settings(), { sources: 2 });
  feed(port, 'a', 10, 0);
  port.configure(settings({ wire: 2 }));
  expect(port.sources).toEqual([]);
});
