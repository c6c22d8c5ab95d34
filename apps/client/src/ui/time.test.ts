import { clockTime, count, dayAndTime, dayOf, spell, stopwatch } from './time';

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

test('a time of day, a day, and both, where the person is', () => {
  const at = new Date(2026, 11, 1, 9, 5, 7).getTime();
  expect([clockTime(at), dayOf(at), dayAndTime(at)]).toEqual(['09:05:07', '1 Dec', '1 Dec 2026, 09:05']);
  expect(dayAndTime(new Date(at).toISOString())).toBe('1 Dec 2026, 09:05');
});

test('a stopwatch, beyond an hour too', () =>
  expect([0, 67, 599, 3600, 3725].map(stopwatch)).toEqual(['0:00', '1:07', '9:59', '1:00:00', '1:02:05']));
