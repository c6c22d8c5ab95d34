import type { SacnDiscovery } from '@taxiarch/core/sacn';
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
  expect(discovered.report(10, 1000)).toEqual([
    expect.objectContaining({ name: 'Desk 7', address: '127.0.0.21', universes: [1, 2, 513, 514], lastSeen: 1001 }),
  ]);
  discovered.note(page(0, 0, [3]), '127.0.0.21', 20);
  expect(discovered.report(30, 0)[0]!.universes).toEqual([3]);
});

test('who announces no more is forgotten after two intervals and a half; others stay', () => {
  const discovered = new Discovered();
  discovered.note(page(0, 0, [1]), '127.0.0.21', 0);
  discovered.note(page(0, 0, [2], 8), '127.0.0.22', 20_000);
  expect(discovered.report(24_000, 0)).toHaveLength(2);
  expect(discovered.report(26_000, 0).map(({ name }) => name)).toEqual(['Desk 8']);
});
