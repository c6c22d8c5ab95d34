/** Addresses for the lamps of a port: nothing overlaps, nothing past 512, locked ones stay, and a second run moves nothing. */
import fc from 'fast-check';
import { ARRANGE_ORDERS, arrange, type ArrangeLamp } from '.';

const lamp = (uid: string, over: Partial<ArrangeLamp> = {}): ArrangeLamp => ({
  ...{ uid, name: uid, number: 0, planned: 0, now: null, slots: 4, locked: false },
  ...over,
});
const some = fc
  .array(
    fc.record({
      number: fc.integer({ min: 0, max: 60 }),
      planned: fc.integer({ min: 0, max: 500 }),
      now: fc.option(fc.integer({ min: 1, max: 500 }), { nil: null }),
      slots: fc.integer({ min: 1, max: 40 }),
    }),
    { maxLength: 40 },
  )
  .map((all) => all.map((one, i) => lamp(`u${String(i).padStart(3, '0')}`, one)));

const after = (lamps: readonly ArrangeLamp[], order: (typeof ARRANGE_ORDERS)[number]) => {
  const { moves, unplaced } = arrange(lamps, order);
  const gone = new Set(unplaced.map(({ uid }) => uid));
  const moved = new Map(moves.map((move) => [move.uid, move.after]));
  return lamps.filter(({ uid }) => !gone.has(uid)).map((one) => ({ ...one, now: moved.get(one.uid) ?? one.now }));
};

test.each(ARRANGE_ORDERS)('%s: no two overlap, none goes past 512, and a second run moves nothing', (order) => {
  fc.assert(
    fc.property(some, (lamps) => {
      const placed = after(lamps, order);
      const taken = new Uint8Array(513);
      for (const { now, slots } of placed) {
        expect(now).not.toBeNull();
        expect(now! + slots - 1).toBeLessThanOrEqual(512);
        for (let slot = now!; slot < now! + slots; slot += 1) taken[slot]! += 1;
      }
      expect(Math.max(...taken)).toBeLessThanOrEqual(1);
      expect(arrange(placed, order).moves).toEqual([]);
    }),
    { numRuns: 200 },
  );
});

test('locked ones stay, and the others go around them', () => {
  const lamps = [
    lamp('a', { now: 3, locked: true, number: 9 }),
    lamp('b', { number: 1, now: 100 }),
    lamp('c', { number: 2 }),
  ];
  expect(arrange(lamps, 'number').moves.map(({ uid, after: at }) => [uid, at])).toEqual([
    ['b', 7],
    ['c', 11],
  ]);
});

test('with the least moves only those in the way go, and never the one that stands as planned', () => {
  const lamps = [
    lamp('wrong', { number: 1, now: 20, planned: 40 }),
    lamp('right', { number: 2, now: 20, planned: 20 }),
    lamp('far', { number: 3, now: 300, planned: 310 }),
  ];
  expect(arrange(lamps, 'least').moves).toEqual([
    { uid: 'wrong', name: 'wrong', before: 20, after: 40, why: 'another has some of its channels' },
  ]);
});

test('in the order of the plan, and of the numbers', () => {
  const lamps = [lamp('x', { number: 1, planned: 50 }), lamp('y', { number: 2, planned: 10 })];
  const order = (by: 'plan' | 'number') => arrange(lamps, by).moves.map(({ uid }) => uid);
  expect([order('plan'), order('number')]).toEqual([
    ['y', 'x'],
    ['x', 'y'],
  ]);
});

test('whoever finds no room is named', () => {
  const { unplaced } = arrange([lamp('a', { slots: 512 }), lamp('b')], 'number');
  expect(unplaced).toEqual([{ uid: 'b', name: 'b' }]);
});
