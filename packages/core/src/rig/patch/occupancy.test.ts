import fc from 'fast-check';
import { SLOTS } from '../../base/address';
import { Occupancy, Patch, placeAll } from '.';

const nothing = () => new Occupancy(new Patch([], []));

/** Claims within one universe: channel and length. */
const claims = fc.array(
  fc
    .integer({ min: 1, max: SLOTS })
    .chain((channel) => fc.tuple(fc.constant(channel), fc.integer({ min: 1, max: Math.min(60, SLOTS + 1 - channel) }))),
  { maxLength: 12 },
);
const claimed = (given: readonly (readonly [number, number])[], universe = 1) => {
  const occupancy = nothing();
  const used = new Set<number>();
  for (const [channel, length] of given) {
    occupancy.claim({ universe, channel }, length);
    for (let slot = channel; slot < channel + length; slot += 1) used.add(slot);
  }
  return { occupancy, used };
};

test('free runs are all that is not used, whole, in order, and none touches the next', () =>
  fc.assert(
    fc.property(claims, (given) => {
      const { occupancy, used } = claimed(given);
      const runs = occupancy.freeRuns(1);
      const free = runs.flatMap(({ channel, length }) => Array.from({ length }, (_, i) => channel + i));
      const unused = Array.from({ length: SLOTS }, (_, i) => i + 1).filter((slot) => !used.has(slot));
      expect(free.join(' ')).toBe(unused.join(' '));
      runs.slice(1).forEach(({ channel }, i) => {
        expect(channel).toBeGreaterThan(runs[i]!.channel + runs[i]!.length);
      });
      expect(occupancy.lastUsed(1)).toBe(Math.max(0, ...used));
    }),
  ));

test('a universe of which nothing is used is one free run', () => {
  expect(nothing().freeRuns(7)).toEqual([{ channel: 1, length: 512 }]);
  expect(nothing().lastUsed(7)).toBe(0);
});

test('the place found is free, and no earlier one would do', () =>
  fc.assert(
    fc.property(
      claims,
      fc.integer({ min: 1, max: SLOTS }),
      fc.integer({ min: 1, max: SLOTS }),
      (given, length, from) => {
        const { occupancy, used } = claimed(given);
        const fits = (channel: number) =>
          channel + length - 1 <= SLOTS &&
          !Array.from({ length }, (_, i) => channel + i).some((slot) => used.has(slot));
        const first = Array.from({ length: SLOTS + 1 - from }, (_, i) => from + i).find(fits);
        expect(occupancy.nextFit(length, { universe: 1, channel: from })).toEqual({
          ok: true,
          value: first === undefined ? { universe: 2, channel: 1 } : { universe: 1, channel: first },
        });
      },
    ),
  ));

test('what no universe can hold, and what is beyond the last universe, is refused in a sentence', () => {
  expect(nothing().nextFit(513, { universe: 1, channel: 1 })).toMatchObject({
    ok: false,
    why: '513 channels do not fit in one universe: it has 512.',
  });
  const full = claimed([[1, 512]], 63_999).occupancy;
  expect(full.nextFit(1, { universe: 63_999, channel: 1 })).toMatchObject({
    ok: false,
    why: 'There is no room for 1 channel up to universe 63999, the last one.',
  });
});

describe('placing many', () => {
  const lamps = fc.array(fc.array(fc.integer({ min: 0, max: 200 }), { minLength: 1, maxLength: 3 }), { maxLength: 15 });
  const how = fc.constantFrom('from' as const, 'gaps' as const, 'after' as const);

  test('never over something else, never cut, however it is asked for', () =>
    fc.assert(
      fc.property(
        claims,
        lamps,
        how,
        fc.integer({ min: 1, max: SLOTS }),
        fc.nat(20),
        (given, blocks, way, channel, gap) => {
          const { occupancy, used } = claimed(given);
          const taken = new Set([...used].map((slot) => `1/${slot}`));
          const placed = placeAll(occupancy, blocks, { how: way, start: { universe: 1, channel }, gap });
          if (!placed.ok) throw new Error(placed.why);
          placed.value.forEach((addresses, i) => {
            const lengths = blocks[i]!.filter((length) => length > 0);
            expect(addresses).toHaveLength(lengths.length);
            addresses.forEach((at, j) => {
              expect(at.channel + lengths[j]! - 1).toBeLessThanOrEqual(SLOTS);
              for (let slot = at.channel; slot < at.channel + lengths[j]!; slot += 1) {
                const name = `${at.universe}/${slot}`;
                expect(taken.has(name)).toBe(false);
                taken.add(name);
              }
            });
          });
        },
      ),
      { numRuns: 60 },
    ));

  test('after what is used begins behind it, though there are gaps before', () => {
    const { occupancy } = claimed([[100, 10]]);
    expect(placeAll(occupancy, [[5], [5]], { how: 'after', start: { universe: 1, channel: 1 }, gap: 2 })).toEqual({
      ok: true,
      value: [[{ universe: 1, channel: 110 }], [{ universe: 1, channel: 117 }]],
    });
    const full = claimed([[512, 1]]).occupancy;
    expect(placeAll(full, [[5]], { how: 'after', start: { universe: 1, channel: 1 }, gap: 0 })).toEqual({
      ok: true,
      value: [[{ universe: 2, channel: 1 }]],
    });
  });

  test('gaps are filled from the start, the short after the long as well', () => {
    const { occupancy } = claimed([
      [4, 7],
      [21, 5],
    ]);
    const placed = placeAll(occupancy, [[8], [3], [3]], { how: 'gaps', start: { universe: 1, channel: 1 }, gap: 0 });
    expect(placed).toMatchObject({
      value: [[{ channel: 11 }], [{ channel: 1 }], [{ channel: 26 }]],
    });
  });
});
