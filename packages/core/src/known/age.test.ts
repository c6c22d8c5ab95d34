import { ageText } from './age';

test.each([
  [-500, '0.0 s ago'],
  [420, '0.4 s ago'],
  [9_940, '9.9 s ago'],
  [45_000, '45 s ago'],
  [12 * 60_000, '12 min ago'],
  [5 * 3_600_000, '5 h ago'],
  [73 * 3_600_000, '3 days ago'],
])('%s ms is %s', (ms, text) => expect(ageText(ms)).toBe(text));
