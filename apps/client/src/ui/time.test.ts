import { count, spell } from './time';

test('how long ago, in the largest word that is not too coarse', () => {
  const of = [-5, 0, 999, 1000, 89_000, 90_000, 5_399_000, 5_400_000, 86_400_000, 73 * 3_600_000];
  expect(of.map(spell)).toEqual([
    'under 1 s',
    'under 1 s',
    'under 1 s',
    '1 s',
    '89 s',
    '2 min',
    '90 min',
    '2 h',
    '24 h',
    '3 days',
  ]);
});

test('one or many', () =>
  expect([count(1, 'lamp'), count(0, 'lamp'), count(2, 'address', 'addresses')]).toEqual([
    '1 lamp',
    '0 lamps',
    '2 addresses',
  ]));
