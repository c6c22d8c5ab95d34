import fc from 'fast-check';
import { Backup, Merger, NOBODY, mergeSlots, type Contender } from '.';

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
