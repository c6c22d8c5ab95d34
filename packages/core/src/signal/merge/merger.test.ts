import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import fc from 'fast-check';
import wabt from 'wabt';
import { Backup, MOST_CONTENDERS, Merger, NOBODY, mergeSlots, type Contender } from '.';
import { WIDE_BYTES } from './wideBytes';

interface Source {
  mark: number;
  priority: number;
  values: Uint8Array;
  count: number;
  slotPriority: Uint8Array | null;
  changedAt: Float64Array | null;
}

const source = (mark: number, over: Partial<Source> = {}): Source => ({
  mark,
  priority: 100,
  values: new Uint8Array(512),
  count: 512,
  slotPriority: null,
  changedAt: null,
  ...over,
});

const rarely = (weight: number) =>
  fc.oneof({ weight, arbitrary: fc.constant(false) }, { weight: 1, arbitrary: fc.constant(true) });

const same = (a: Uint8Array, b: Uint8Array): boolean => Buffer.compare(a, b) === 0;

/** What happens between two merges: few slots, so that the same ones rise and fall, and mostly the same sources. */
const happening = fc.record({
  which: fc.nat(3),
  levels: fc.array(fc.tuple(fc.constantFrom(0, 1, 2, 3, 4, 22, 23, 24, 510, 511), fc.nat(3)), { maxLength: 8 }),
  count: fc.oneof(
    { weight: 9, arbitrary: fc.constant(undefined) },
    { weight: 1, arbitrary: fc.constantFrom(512, 24, 3) },
  ),
  priority: fc.oneof(
    { weight: 9, arbitrary: fc.constant(undefined) },
    { weight: 1, arbitrary: fc.constantFrom(100, 120) },
  ),
  slotPriority: rarely(9),
  leaves: rarely(9),
});

test('whatever happens in whatever order, it comes to what the plain merge comes to', () =>
  fc.assert(
    fc.property(fc.array(happening, { minLength: 10, maxLength: 40 }), (happenings) => {
      const sources = [0, 1, 2, 3].map((mark) => source(mark));
      const merger = new Merger();
      const values = new Uint8Array(512);
      const owners = new Uint8Array(512).fill(NOBODY);
      for (const { which, levels, count, priority, slotPriority, leaves } of happenings) {
        const one = sources[which]!;
        for (const [slot, level] of levels) one.values[slot] = level;
        if (count !== undefined) one.count = count;
        if (priority !== undefined) one.priority = priority;
        one.slotPriority = slotPriority && which === 3 ? new Uint8Array(512).fill(110, 0, 9) : null;
        const heard: Contender[] = leaves ? sources.filter((other) => other !== one) : sources;
        merger.merge(heard, 'htp');
        mergeSlots(heard, 'htp', values, owners);
        expect([same(merger.values, values), same(merger.owners, owners)]).toEqual([true, true]);
      }
    }),
  ));

/** A source of any kind: few levels and priorities, so that many are equal. */
const anySource = fc.record({
  priority: fc.constantFrom(0, 1, 100, 200),
  values: fc.uint8Array({ minLength: 512, maxLength: 512, max: 3 }),
  count: fc.constantFrom(0, 1, 15, 16, 17, 511, 512),
  // 201 and above are none that a source may send; a byte holds them all the same.
  slotPriority: fc.option(
    fc
      .array(fc.constantFrom(0, 1, 2, 100, 199, 200, 201, 254, 255), { minLength: 512, maxLength: 512 })
      .map((bytes) => Uint8Array.from(bytes)),
  ),
});

test('any sources of any priorities, however many, merge as slot by slot, also when they merge again', () =>
  fc.assert(
    fc.property(fc.array(anySource, { minLength: 2, maxLength: 9 }), (given) => {
      const sources = given.map((one, i) => source(250 - i * 3, one));
      const merger = new Merger();
      const values = new Uint8Array(512);
      const owners = new Uint8Array(512).fill(NOBODY);
      for (const heard of [sources, sources.slice(1), [...sources].reverse(), sources]) {
        merger.merge(heard, 'htp');
        mergeSlots(heard, 'htp', values, owners);
        expect([same(merger.values, values), same(merger.owners, owners)]).toEqual([true, true]);
      }
    }),
  ));

test('as many sources as can be told apart are merged', () => {
  const sources = Array.from({ length: MOST_CONTENDERS }, (_, mark) => source(mark));
  sources.forEach(({ values }, i) => (values[i] = 7));
  const merger = new Merger();
  merger.merge(sources, 'htp');
  expect([...merger.owners.subarray(0, MOST_CONTENDERS)]).toEqual(sources.map(({ mark }) => mark));
});

test('one more than can be told apart is merged slot by slot', () => {
  const sources = Array.from({ length: MOST_CONTENDERS + 1 }, (_, mark) => source(mark % MOST_CONTENDERS));
  sources[MOST_CONTENDERS]!.values[3] = 9;
  const merger = new Merger();
  merger.merge(sources, 'htp');
  expect([merger.values[3], merger.owners[3]]).toEqual([9, 0]);
});

test('by latest change the later one wins, also below', () => {
  const sources = [
    source(1, { changedAt: new Float64Array(512).fill(1000) }),
    source(2, { changedAt: new Float64Array(512).fill(2000) }),
  ];
  sources[0]!.values.fill(200);
  const merger = new Merger();
  merger.merge(sources, 'ltp');
  expect([merger.values[0], merger.owners[0]]).toEqual([0, 2]);
});

test('a priority of a slot above the highest that there is counts as the highest, and lets no slot go', () => {
  const [odd, highest] = [source(1, { slotPriority: new Uint8Array(512).fill(255) }), source(2, { priority: 200 })];
  odd.values.fill(10);
  highest.values.fill(20);
  const merger = new Merger();
  merger.merge([odd, highest], 'htp');
  expect([merger.owners[0], merger.values[0]]).toEqual([2, 20]);
  merger.merge([odd, source(3)], 'htp');
  expect([merger.owners[0], merger.values[0]]).toEqual([1, 10]);
});

test('two merges that take turns keep what each came to', () => {
  const [low, high] = [source(1), source(2)];
  low.values.fill(10);
  high.values.fill(20);
  const one = new Merger();
  const other = new Merger();
  one.merge([low, high], 'htp');
  other.merge([source(3), source(4)], 'htp');
  expect([one.values[0], one.owners[0], other.values[0], other.owners[0]]).toEqual([20, 2, 0, 3]);
  // At one level the owner so far stays, whatever the other merge has done in between.
  low.values.fill(20);
  one.merge([low, high], 'htp');
  expect(one.owners[0]).toBe(2);
});

test('without wide words it comes to the same', () => {
  const there = Object.getOwnPropertyDescriptor(globalThis, 'WebAssembly')!;
  Object.defineProperty(globalThis, 'WebAssembly', { ...there, value: undefined });
  try {
    jest.isolateModules(() => {
      // eslint-disable-next-line @typescript-eslint/no-require-imports -- read once more, without WebAssembly
      const narrow = new (require('.') as { Merger: typeof Merger }).Merger();
      const sources = [source(1), source(2, { slotPriority: new Uint8Array(512).fill(110, 0, 9) })];
      sources[0]!.values.fill(200);
      sources[1]!.values.fill(50);
      narrow.merge(sources, 'htp');
      expect([narrow.owners[8], narrow.values[8], narrow.owners[9], narrow.values[9]]).toEqual([2, 50, 1, 200]);
    });
  } finally {
    Object.defineProperty(globalThis, 'WebAssembly', there);
  }
});

test('the bytes that ship are made of the text that is read', async () => {
  const text = readFileSync(join(__dirname, 'wide.wat'), 'utf8');
  const made = (await wabt()).parseWat('wide.wat', text, { simd: true }).toBinary({}).buffer;
  expect(Buffer.compare(made, WIDE_BYTES)).toBe(0);
});

test('no slot is ever owned by a source of lower priority than another that controls it', () =>
  fc.assert(
    fc.property(
      fc.array(fc.tuple(fc.nat(200), fc.uint8Array({ minLength: 512, maxLength: 512 }), fc.boolean()), {
        minLength: 1,
        maxLength: 4,
      }),
      (given) => {
        const sources = given.map(([priority, bytes, perSlot], mark) =>
          source(mark, {
            priority,
            values: Uint8Array.from(bytes),
            slotPriority: perSlot ? bytes.map((b) => b % 201) : null,
          }),
        );
        const merger = new Merger();
        merger.merge(sources, 'htp');
        for (let slot = 0; slot < 512; slot += 1) {
          const priorities = sources.map((one) => (one.slotPriority ? one.slotPriority[slot]! || -1 : one.priority));
          const highest = Math.max(...priorities);
          const owner = merger.owners[slot]!;
          if (highest < 0) expect(owner).toBe(NOBODY);
          else expect(priorities[owner]).toBe(highest);
        }
      },
    ),
    { numRuns: 30 },
  ));

test('a backup has chosen nobody before it chooses, and begins with the first', () => {
  const backup = new Backup();
  expect(backup.current).toBe(-1);
  expect(backup.choose([true, true], 'by hand')).toBe(0);
});

test('the backup takes over when the first falls silent, and gives back at once', () => {
  const backup = new Backup();
  expect(backup.choose([true, true], 'at once')).toBe(0);
  expect(backup.choose([false, true], 'at once')).toBe(1);
  expect(backup.choose([true, true], 'at once')).toBe(0);
  expect(backup.choose([false, false], 'at once')).toBe(-1);
});

test('or it goes on until a person gives back', () => {
  const backup = new Backup();
  backup.choose([true, true], 'by hand');
  backup.choose([false, true], 'by hand');
  expect(backup.choose([true, true], 'by hand')).toBe(1);
  backup.giveBack([true, true]);
  expect(backup.choose([true, true], 'by hand')).toBe(0);
  // A backup that falls silent itself cannot go on, whoever was to give back.
  backup.choose([false, true], 'by hand');
  expect(backup.choose([true, false], 'by hand')).toBe(0);
});
