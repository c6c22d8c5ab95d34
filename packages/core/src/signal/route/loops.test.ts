import fc from 'fast-check';
import { findRouteLoop, type RouteInput } from '.';
import { checkRecord, PLAIN_INPUT, PLAIN_ROUTE, type Route } from '../../show/records';

const sacn = (number: number) => ({ protocol: 'sacn' as const, number });
const route = (from: readonly number[], to: number, over: Partial<RouteInput> = {}): Route => ({
  ...PLAIN_ROUTE,
  id: `${from.join('+')}-${to}`,
  rev: 0,
  name: 'r',
  order: 0,
  inputs: from.map((number) => ({ ...PLAIN_INPUT, wire: sacn(number), ...over })),
  out: sacn(to),
});

test('the way round is told', () => {
  expect(findRouteLoop([route([1], 2), route([2, 7], 3), route([3], 1)])).toBe('sACN 2 → sACN 3 → sACN 1 → sACN 2');
  expect(findRouteLoop([route([5], 5)])).toBe('sACN 5 → sACN 5');
});

test('a part taken from what the route makes is a loop too', () => {
  const part = { first: 1, last: 2, by: 'input' as const, level: 0, from: { wire: sacn(9), channel: 1 } };
  expect(findRouteLoop([{ ...route([1], 2), parts: [part] }, route([2], 9)])).toMatch(/sACN 9/);
});

test('an input held to one other sender does not hear what we send', () =>
  expect(findRouteLoop([route([5], 5, { sender: 'Bridge desk' })])).toBeUndefined());

test('the same number by the other protocol is another universe', () =>
  expect(findRouteLoop([{ ...route([5], 5), out: { protocol: 'artnet', number: 5 } }])).toBeUndefined());

test('a loop is always found, and only where there is one', () =>
  fc.assert(
    fc.property(
      fc.array(fc.tuple(fc.integer({ min: 1, max: 12 }), fc.integer({ min: 1, max: 12 })), { maxLength: 30 }),
      (pairs) => {
        // What can be reached from where, by repeated squaring of the relation: slow and surely right.
        const reach = Array.from({ length: 13 }, () => new Set<number>());
        for (const [from, to] of pairs) reach[from]!.add(to);
        for (let k = 0; k < 13; k += 1)
          for (const set of reach) for (const to of [...set]) reach[to]!.forEach((further) => set.add(further));
        const looped = reach.some((set, at) => set.has(at));
        expect(findRouteLoop(pairs.map(([from, to]) => route([from], to))) !== undefined).toBe(looped);
      },
    ),
  ));

test.each([
  [{ inputs: [] }, 'A route has at least one input.'],
  [{ delivery: 'unicast' as const }, 'Say to which addresses unicast goes.'],
  [{ parts: [{ first: 9, last: 3, by: 'hand' as const, level: 1, from: null }] }, 'A part ends before it begins.'],
  [
    { parts: [{ first: 1, last: 3, by: 'input' as const, level: 1, from: null }] },
    'Say from which universe the part comes.',
  ],
  [{ out: sacn(0) }, 'sACN universes begin at 1.'],
  [
    {
      parts: Array.from({ length: 129 }, (_, i) => ({
        first: i + 1,
        last: i + 1,
        by: 'hand' as const,
        level: 1,
        from: null,
      })),
    },
    'The parts: at most 128.',
  ],
])('a route with %j is refused in a sentence', (over, why) =>
  expect(checkRecord('route', { ...route([1], 2), ...over })).toMatchObject({ ok: false, faults: [{ why }] }),
);
