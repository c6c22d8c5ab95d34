import { changedSince, lastGood, statesNow } from '.';
import type { MachineEntry } from '../../network/node';
import type { Good } from '../../show/records';
import type { UniverseReport } from '../../signal/stream';

const universe = (show: number | null, state: string) =>
  ({ show, name: `U${show}`, state }) as unknown as UniverseReport;
const machine = (id: string, state: string) => ({ plan: { id, name: id }, state }) as unknown as MachineEntry;
const now = statesNow(
  [universe(1, 'steady'), universe(2, 'silent'), universe(null, 'stray')],
  [machine('quay', 'matched'), machine('desk', 'unseen')],
);
const good = (over: Partial<Good> = {}): Good => ({ id: 'g', rev: 3, at: '', by: 'Ada', states: now, ...over });

test('planned universes and machines that can be heard have a state; strays and what nobody hears have none', () =>
  expect(now.map(({ about, says }) => [about, says])).toEqual([
    ['universe 1', 'steady'],
    ['universe 2', 'silent'],
    ['machine quay', 'matched'],
  ]));

test('what stands otherwise is told, and what came or went', () => {
  expect(changedSince(good(), now)).toEqual([]);
  const later = statesNow([universe(1, 'contested'), universe(3, 'steady')], [machine('quay', 'missing')]);
  expect(changedSince(good(), later)).toEqual([
    { name: 'Universe 1 U1', before: 'steady', now: 'contested' },
    { name: 'Universe 3 U3', before: 'not there', now: 'steady' },
    { name: 'quay', before: 'matched', now: 'missing' },
    { name: 'Universe 2 U2', before: 'silent', now: 'not there' },
  ]);
});

test('the one kept last counts', () => {
  expect(lastGood([])).toBeUndefined();
  expect(lastGood([good(), good({ id: 'h', rev: 9 }), good({ id: 'i', rev: 5 })])?.id).toBe('h');
});
