import fc from 'fast-check';
import { NOBODY, mergeSlots, priorityAt, type Contender, type MergeMode } from '.';

interface Wanted {
  priority?: number;
  levels?: Record<number, number>;
  count?: number;
  slotPriority?: Record<number, number>;
  changed?: Record<number, number>;
}

const fill = <T extends Uint8Array | Float64Array>(into: T, values: Record<number, number>): T => {
  for (const [slot, value] of Object.entries(values)) into[Number(slot)] = value;
  return into;
};

const contender = (
  mark: number,
  { priority = 100, levels = {}, count = 512, slotPriority, changed }: Wanted,
): Contender => ({
  mark,
  priority,
  count,
  values: fill(new Uint8Array(512), levels),
  slotPriority: slotPriority ? fill(new Uint8Array(512), slotPriority) : null,
  changedAt: changed ? fill(new Float64Array(512), changed) : null,
});

function merged(contenders: Contender[], mode: MergeMode = 'htp', owners = new Uint8Array(512).fill(NOBODY)) {
  const values = new Uint8Array(512).fill(99);
  mergeSlots(contenders, mode, values, owners);
  return { values, owners, at: (slot: number) => [values[slot], owners[slot]] };
}

test('nobody sends: zero, owned by nobody', () => {
  expect(merged([]).at(5)).toEqual([0, NOBODY]);
});

test('one sender owns what it sends and no more', () => {
  const { at } = merged([contender(3, { levels: { 0: 10, 20: 200 }, count: 21 })]);
  expect(at(20)).toEqual([200, 3]);
  expect(at(21)).toEqual([0, NOBODY]);
});

test('the highest priority wins whatever its level', () => {
  const { at } = merged([contender(0, { levels: { 0: 255 } }), contender(1, { priority: 150, levels: { 0: 1 } })]);
  expect(at(0)).toEqual([1, 1]);
});

test('among equal priorities the highest level counts', () => {
  const { at } = merged([contender(0, { levels: { 0: 10, 1: 90 } }), contender(1, { levels: { 0: 20, 1: 80 } })]);
  expect([at(0), at(1)]).toEqual([
    [20, 1],
    [90, 0],
  ]);
});

test('at one level the owner stays the owner', () => {
  const two = [contender(0, { levels: { 0: 50 } }), contender(1, { levels: { 0: 50 } })];
  expect(merged(two).at(0)).toEqual([50, 0]);
  expect(merged(two, 'htp', new Uint8Array(512).fill(1)).at(0)).toEqual([50, 1]);
});

test('LTP: among equal priorities the latest change counts', () => {
  const { at } = merged(
    [
      contender(0, { levels: { 0: 200 }, changed: { 0: 1000 } }),
      contender(1, { levels: { 0: 5 }, changed: { 0: 2000 } }),
    ],
    'ltp',
  );
  expect(at(0)).toEqual([5, 1]);
});

test('LTP: what changed at one moment, or at none that is known, stays with its owner', () => {
  const owned = (mark: number) => new Uint8Array(512).fill(mark);
  const alike = [
    contender(0, { levels: { 0: 200, 1: 1 }, changed: { 0: 1000 } }),
    contender(1, { levels: { 0: 5, 1: 2 }, changed: { 0: 1000 } }),
  ];
  expect([merged(alike, 'ltp', owned(0)).at(0), merged(alike, 'ltp', owned(1)).at(0)]).toEqual([
    [200, 0],
    [5, 1],
  ]);
  const unknown = [contender(0, { levels: { 0: 200 } }), contender(1, { levels: { 0: 5 } })];
  expect([merged(unknown, 'ltp', owned(0)).at(0), merged(unknown, 'ltp', owned(1)).at(0)]).toEqual([
    [200, 0],
    [5, 1],
  ]);
  // One that has changed goes before one of which nobody knows that it ever did, in either order.
  const changed = contender(2, { levels: { 0: 7 }, changed: { 0: 1 } });
  expect(merged([unknown[0]!, changed], 'ltp', owned(0)).at(0)).toEqual([7, 2]);
  expect(merged([changed, unknown[0]!], 'ltp', owned(0)).at(0)).toEqual([7, 2]);
});

test('LTP: the earlier change never displaces the later one, whoever owned the slot', () => {
  const two = [
    contender(0, { levels: { 0: 200 }, changed: { 0: 2000 } }),
    contender(1, { levels: { 0: 5 }, changed: { 0: 1000 } }),
  ];
  expect(merged(two, 'ltp', new Uint8Array(512).fill(1)).at(0)).toEqual([200, 0]);
});

test('per-slot priority replaces the packet priority, and 0 lets the slot go', () => {
  const { at } = merged([
    contender(0, { levels: { 0: 40, 1: 40, 2: 40 } }),
    contender(1, { priority: 150, levels: { 0: 9, 1: 9, 2: 9 }, slotPriority: { 0: 150, 1: 0, 2: 50 } }),
  ]);
  expect([at(0), at(1), at(2)]).toEqual([
    [9, 1],
    [40, 0],
    [40, 0],
  ]);
});

test('alone with per-slot priority a source owns only its own slots', () => {
  const { at } = merged([contender(1, { levels: { 0: 9, 1: 9 }, slotPriority: { 0: 1 } })]);
  expect([at(0), at(1)]).toEqual([
    [9, 1],
    [0, NOBODY],
  ]);
});

test('priority 0 in the packet still controls', () => {
  expect(merged([contender(0, { priority: 0, levels: { 0: 7 } }), contender(1, { count: 0 })]).at(0)).toEqual([7, 0]);
});

const anyContenders = fc
  .array(
    fc.record({
      priority: fc.integer({ min: 0, max: 200 }),
      level: fc.nat(255),
      slotPriority: fc.option(fc.nat(200)),
      count: fc.constantFrom(0, 1, 512),
    }),
    { maxLength: 6 },
  )
  .map((list) =>
    list.map(({ priority, level, slotPriority, count }, mark) =>
      contender(mark, {
        priority,
        count,
        levels: { 0: level },
        ...(slotPriority !== null && { slotPriority: { 0: slotPriority } }),
      }),
    ),
  );

test('the owner controls the slot, nobody ranks above it, and its level is the result; order does not matter', () => {
  fc.assert(
    fc.property(anyContenders, (contenders) => {
      const { values, owners } = merged(contenders);
      const controlling = contenders.filter((one) => priorityAt(one, 0) >= 0);
      const owner = contenders.find((one) => one.mark === owners[0]);
      if (controlling.length === 0) expect([values[0], owners[0]]).toEqual([0, NOBODY]);
      else {
        const top = Math.max(...controlling.map((one) => priorityAt(one, 0)));
        const best = Math.max(...controlling.filter((one) => priorityAt(one, 0) === top).map((one) => one.values[0]!));
        expect(priorityAt(owner!, 0)).toBe(top);
        expect([values[0], owner!.values[0]]).toEqual([best, best]);
      }
      expect(merged([...contenders].reverse()).values).toEqual(values);
    }),
  );
});
