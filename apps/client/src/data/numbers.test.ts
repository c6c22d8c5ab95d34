import fc from 'fast-check';
import { metresFrom, wholeFrom } from './numbers';

test('whole numbers are read as typed, and nothing else is taken for one', () => {
  fc.assert(
    fc.property(fc.integer({ min: -9_999_999, max: 9_999_999 }), (number) =>
      expect(wholeFrom(`  ${number} `)).toBe(number),
    ),
  );
  for (const text of ['', ' ', '1.5', '1e3', '0x10', '12345678901', 'one', '1 2', '--1', '∞'])
    expect(wholeFrom(text)).toBeUndefined();
});

test('metres may have a comma, a point, and a minus as print has it', () => {
  expect(['1,5', '1.5', ' −2 ', '-0,25', '3'].map(metresFrom)).toEqual([1.5, 1.5, -2, -0.25, 3]);
  expect(['', ' ', 'm', '1,2,3', 'Infinity', '1;2'].map(metresFrom)).toEqual(Array(6).fill(undefined));
});
