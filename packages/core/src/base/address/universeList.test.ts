import fc from 'fast-check';
import { formatUniverses, readUniverses, runsOf } from '.';

test('what is written is read again', () =>
  fc.assert(
    fc.property(fc.uniqueArray(fc.integer({ min: 1, max: 5000 }), { maxLength: 200 }), (universes) => {
      const rising = [...universes].sort((a, b) => a - b);
      expect(readUniverses(formatUniverses(universes))).toEqual({ ok: true, value: rising });
      expect(runsOf(rising).reduce((sum, [first, last]) => sum + last - first + 1, 0)).toBe(universes.length);
    }),
  ));

test.each([
  ['1-4, 9', [1, 2, 3, 4, 9]],
  ['9;1 – 4  3', [1, 2, 3, 4, 9]],
  ['', []],
])('“%s”', (text, universes) => expect(readUniverses(text)).toEqual({ ok: true, value: universes }));

test.each([
  ['1-x', /“1-x” is no universe/],
  ['0', /from 1 to/],
  ['9-4', /ends before it begins/],
  ['1-5000', /at most 4096/],
  ['99999999', /is no universe/],
])('“%s” is refused in a sentence', (text, why) =>
  expect(readUniverses(text)).toMatchObject({ ok: false, why: expect.stringMatching(why) as string }),
);
