import { whySlot } from '.';

const one = (name: string, value: number, priority: number) => ({ mark: 0, name, value, priority, age: null });

test.each([
  [[], /Nobody controls/],
  [[one('Bridge desk', 5, 100)], /Bridge desk is the only one/],
  [
    [one('Bridge desk', 5, 100), one('Taxiarch', 9, 150)],
    /Taxiarch wins with priority 150, above Bridge desk with 100/,
  ],
  [
    [one('Bridge desk', 5, 100), one('Stern desk', 9, 100)],
    /Bridge desk \(5\) and Stern desk \(9\) send at the same priority 100: the highest level/,
  ],
  [
    [one('Bridge desk', 5, 100), one('Taxiarch', 9, -1)],
    /only one that controls it. Taxiarch sends the universe but not this slot/,
  ],
])('why a slot is as it is (%#)', (contenders, sentence) =>
  expect(whySlot(contenders, 'htp', 'sacn')).toMatch(sentence),
);

test('where the latest change counts, it says so', () => {
  expect(whySlot([one('A', 1, 100), one('B', 2, 100)], 'ltp', 'sacn')).toMatch(/latest change counts/);
});

test('Art-Net has no priority, and none is said', () =>
  expect(whySlot([one('A', 1, 100), one('B', 2, 100)], 'htp', 'artnet')).toBe(
    'A (1) and B (2) send it: the highest level counts.',
  ));
