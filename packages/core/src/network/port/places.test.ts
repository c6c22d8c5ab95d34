/** Who has a place at a port: late packets, other universes, priorities of slots, merges that end, and what is counted. */
import { OutputPort, type ArtNetPacket, type PortRules, type SacnPacket } from './outputPort';

const settings = (over: Partial<PortRules> = {}): PortRules => ({
  ...{ use: 'out', protocol: 'sacn', wire: 1, merge: 'htp', loss: { kind: 'hold', after: 0, over: 0 } },
  ...{ start: 'wait', fixed: 77, look: [] },
  ...over,
});
const counts = new Map<string, number>();
const sacn = (id: string, first: number, over: Partial<SacnPacket> = {}): SacnPacket => {
  const sequence = ((counts.get(id) ?? 0) + 1) & 0xff;
  counts.set(id, sequence);
  return {
    ...{ id, address: '127.0.0.9', name: id, priority: 100, sequence, startCode: 0, slots: Uint8Array.of(first, 40) },
    ...{ terminated: false, preview: false, syncAddress: 0, forceSync: false },
    ...over,
  };
};
const slotPriorities = (id: string, ...slots: number[]) =>
  sacn(id, 0, { startCode: 0xdd, slots: Uint8Array.from(slots) });
const art = (address: string, first: number): ArtNetPacket => ({
  address,
  physical: 0,
  slots: Uint8Array.of(first, 40),
});
const first = (port: OutputPort, now: number) => port.output(now)?.[0] ?? null;
const ids = (port: OutputPort) => port.sources.map(({ id }) => id);
beforeEach(() => counts.clear());

describe('packets that come late', () => {
  const at = (sequence: number, after: number) => {
    const port = new OutputPort(settings(), { sources: 2 });
    port.sacn(sacn('desk', 10, { sequence: after }), 0);
    port.sacn(sacn('desk', 20, { sequence }), 1);
    return first(port, 2);
  };
  test('are left out, up to nineteen behind; further behind the sender has begun anew (E1.31, 6.7.2)', () => {
    expect(at(101, 100)).toBe(20);
    expect(at(100, 100)).toBe(10);
    expect(at(99, 100)).toBe(10);
    expect(at(81, 100)).toBe(10);
    expect(at(80, 100)).toBe(20);
    expect(at(0, 255)).toBe(20);
    expect(at(255, 0)).toBe(10);
  });

  test('the first one is taken whatever its number', () => {
    const port = new OutputPort(settings(), { sources: 2 });
    port.sacn(sacn('desk', 30, { sequence: 0 }), 0);
    expect(first(port, 1)).toBe(30);
    port.sacn(sacn('desk', 31, { sequence: 0 }), 2);
    expect(first(port, 3)).toBe(30);
  });
});

test('a port that is turned to another universe or protocol hears nobody; other settings let its sources be', () => {
  const port = new OutputPort(settings(), { sources: 2 });
  port.sacn(sacn('desk', 30), 0);
  port.configure(settings({ merge: 'ltp' }));
  expect(ids(port)).toEqual(['desk']);
  port.configure(settings({ merge: 'ltp', wire: 2 }));
  expect(ids(port)).toEqual([]);
  port.sacn(sacn('desk', 30), 10);
  port.configure(settings({ protocol: 'artnet', wire: 2 }));
  expect(ids(port)).toEqual([]);
  port.configure(settings({ wire: 2 }));
  port.sacn(sacn('desk', 30), 20);
  port.configure(settings({ wire: 2, use: 'off' }));
  expect([port.output(21), ids(port)]).toEqual([null, []]);
  port.configure(settings({ wire: 2, use: 'in' }));
  port.sacn(sacn('desk', 30), 22);
  expect([port.output(23), ids(port)]).toEqual([null, []]);
});

test('only the port’s own protocol is heard', () => {
  const port = new OutputPort(settings({ protocol: 'artnet' }), { sources: 2 });
  port.sacn(sacn('desk', 30), 0);
  expect([ids(port), first(port, 1)]).toEqual([[], null]);
});

describe('whether a port merges', () => {
  const two = (one: Partial<SacnPacket>, other: Partial<SacnPacket>) => {
    const port = new OutputPort(settings(), { sources: 4 });
    port.sacn(sacn('one', 1, one), 0);
    port.sacn(sacn('other', 2, other), 0);
    return port;
  };
  test('two at the highest priority do; one below another does not; one alone never', () => {
    expect(two({}, {}).merging).toBe(true);
    expect(two({}, { priority: 101 }).merging).toBe(false);
    const three = two({}, {});
    three.sacn(sacn('third', 3, { priority: 150 }), 0);
    expect(three.merging).toBe(false);
    const alone = new OutputPort(settings(), { sources: 4 });
    alone.sacn(sacn('one', 1), 0);
    expect(alone.merging).toBe(false);
  });

  test('by the priorities of their slots: at one slot where both have the highest, and not at nought', () => {
    const port = two({}, {});
    port.sacn(slotPriorities('one', 150, 0), 1);
    port.sacn(slotPriorities('other', 100, 150), 1);
    expect(port.merging).toBe(false);
    port.sacn(slotPriorities('other', 150, 0), 2);
    expect(port.merging).toBe(true);
    port.sacn(slotPriorities('one', 0, 0), 3);
    port.sacn(slotPriorities('other', 0, 0), 3);
    expect(port.merging).toBe(false);
  });

  test('one with priorities of slots beside one without: the packet’s counts for each slot that it brings', () => {
    const port = two({}, {});
    port.sacn(slotPriorities('one', 100, 0), 1);
    expect(port.merging).toBe(true);
    port.sacn(slotPriorities('one', 99, 0), 2);
    expect(port.merging).toBe(false);
    // Beyond its two slots the other has no say.
    port.sacn(slotPriorities('one', 99, 0, 100), 3);
    expect(port.merging).toBe(false);
  });
});

test('a place is given by the highest priority that a source has for any slot', () => {
  const port = new OutputPort(settings(), { sources: 1 });
  port.sacn(sacn('one', 1), 0);
  port.sacn(sacn('other', 2, { priority: 90 }), 0);
  expect(ids(port)).toEqual(['one']);
  port.sacn(slotPriorities('other', 1, 120), 1);
  expect(ids(port)).toEqual(['other']);
  port.sacn(slotPriorities('other', 1, 80), 2);
  expect(ids(port)).toEqual(['one']);
});

test('sixty-four are heard at most, and each has a mark of its own', () => {
  const port = new OutputPort(settings(), { sources: 512 });
  const heard = () => [...port.sources, ...port.refused];
  for (let i = 0; i < 80; i += 1) port.sacn(sacn(`desk ${i}`, 7), 0);
  expect(heard()).toHaveLength(64);
  expect(new Set(heard().map(({ mark }) => mark)).size).toBe(64);
  // A mark that one leaves is free again.
  port.sacn(sacn('desk 3', 7, { terminated: true }), 1);
  port.sacn(sacn('one more', 7), 1);
  expect(new Set(heard().map(({ mark }) => mark)).size).toBe(64);
});

describe('the end of an Art-Net merge', () => {
  const merge = () => {
    const port = new OutputPort(settings({ protocol: 'artnet', merge: 'htp' }), { sources: 2 });
    port.artnet(art('10.0.0.1', 100), 0);
    port.artnet(art('10.0.0.2', 50), 0);
    return port;
  };
  test('keeps whoever sends next, alone, until all of them are silent', () => {
    const port = merge();
    expect([first(port, 1), port.merging]).toEqual([100, true]);
    port.cancelMerge();
    port.artnet(art('10.0.0.2', 60), 10);
    expect([first(port, 11), port.merging]).toEqual([60, false]);
    port.artnet(art('10.0.0.1', 100), 12);
    expect(first(port, 13)).toBe(60);
  });

  test('is nothing where nobody merges: who comes next is merged as ever', () => {
    const port = new OutputPort(settings({ protocol: 'artnet' }), { sources: 2 });
    port.artnet(art('10.0.0.1', 100), 0);
    port.cancelMerge();
    port.artnet(art('10.0.0.1', 90), 1);
    port.artnet(art('10.0.0.2', 95), 2);
    expect([first(port, 3), port.merging]).toEqual([95, true]);
  });
});

test('signal passes while packets come, and not much longer; a port that holds does not pass', () => {
  const port = new OutputPort(settings(), { sources: 2 });
  expect(port.passes(0)).toBe(false);
  port.sacn(sacn('desk', 9), 1000);
  port.sacn(sacn('aft', 9), 0);
  expect(port.passes(1001)).toBe(true);
  expect(port.passes(60_000)).toBe(false);
  expect(first(port, 60_000)).toBe(9);
});

test('synchronised packets wait for their own address, of their own protocol', () => {
  const port = new OutputPort(settings(), { sources: 2 });
  port.sacn(sacn('desk', 10), 0);
  port.sacnSync(7, 0);
  port.sacn(sacn('desk', 20, { syncAddress: 7, forceSync: true }), 10);
  expect(first(port, 11)).toBe(10);
  port.sacnSync(8, 12);
  expect(first(port, 13)).toBe(10);
  port.sacnSync(7, 14);
  expect(first(port, 15)).toBe(20);
});
