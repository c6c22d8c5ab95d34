import type { SacnDiscovery } from '@taxiarch/core/protocol/sacn';
import { Discovered } from './discovered';

const page = (number: number, lastPage: number, universes: readonly number[], id = 7): SacnDiscovery => ({
  kind: 'discovery',
  cid: new Uint8Array(16).fill(id),
  sourceName: `Desk ${id}`,
  page: number,
  lastPage,
  universes,
});

test('pages of one announcement are one list, in whatever order they come', () => {
  const discovered = new Discovered();
  discovered.note(page(1, 1, [513, 514]), '127.0.0.21', 0);
  discovered.note(page(0, 1, [1, 2]), '127.0.0.21', 1);
  expect(discovered.report(1000)).toEqual([
    expect.objectContaining({
      name: 'Desk 7',
      address: '127.0.0.21',
      universes: [1, 2, 513, 514],
      count: 4,
      lastSeen: 1001,
    }),
  ]);
  discovered.note(page(0, 0, [3]), '127.0.0.21', 20);
  expect(discovered.report(0)[0]!.universes).toEqual([3]);
});

test('who announces no more is forgotten after two intervals and a half; others stay', () => {
  const discovered = new Discovered();
  discovered.note(page(0, 0, [1]), '127.0.0.21', 0);
  discovered.note(page(0, 0, [2], 8), '127.0.0.22', 20_000);
  discovered.sweep(24_000);
  expect(discovered.report(0)).toHaveLength(2);
  discovered.sweep(26_000);
  expect(discovered.report(0).map(({ name }) => name)).toEqual(['Desk 8']);
});

test('all that are announced are put together; what is announced no more goes', () => {
  const discovered = new Discovered();
  discovered.note(page(0, 1, [5, 9]), '127.0.0.21', 0);
  discovered.note(page(1, 1, [600]), '127.0.0.21', 0);
  discovered.note(page(0, 0, [1, 9], 8), '127.0.0.22', 20_000);
  expect(discovered.universes()).toEqual([1, 5, 9, 600]);
  discovered.note(page(0, 0, [5]), '127.0.0.21', 20_000);
  expect(discovered.universes()).toEqual([1, 5, 9]);
  discovered.sweep(30_000);
  discovered.note(page(0, 0, [5]), '127.0.0.21', 31_000);
  discovered.sweep(46_000);
  expect(discovered.universes()).toEqual([5]);
});

test('whoever announces everything is remembered in little and reported in less', () => {
  const discovered = new Discovered();
  for (let id = 0; id < 40; id += 1)
    for (let number = 0; number < 125; number += 1) {
      const universes = Array.from({ length: 512 }, (_, i) => number * 512 + i + 1).filter((one) => one <= 63_999);
      discovered.note(page(number, 124, universes, id), `10.0.0.${id}`, 0);
    }
  expect(discovered.universes()).toHaveLength(63_999);
  const report = discovered.report(0);
  expect(report).toHaveLength(40);
  expect(report[0]).toMatchObject({ count: 63_999 });
  expect(JSON.stringify(report).length).toBeLessThan(30_000);
});
