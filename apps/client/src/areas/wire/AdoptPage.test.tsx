/** Strangers are adopted together, in one edit, after a look at all of it. */
import { fireEvent, screen } from '@testing-library/react';
import { nightFerry } from '@taxiarch/core/whole/demo';
import type { Machine } from '@taxiarch/core/show/records';
import { machineSelection } from '@/data/selection';
import { liveOf, open, proposed, settled } from '@/testing/server';
import { nodeAt } from '@/testing/nodes';
import { AdoptPage } from './AdoptPage';

const records = nightFerry();
const strangers = [61, 62, 63].map((host) => nodeAt(`127.0.0.${host}`, `Box ${host}`, `02:00:00:00:00:${host}`));
const page = () => open(<AdoptPage />, { records, live: liveOf(records, { nodes: strangers }) });

test('all strangers, or those that are left ticked, come into the plan as one edit', async () => {
  await page();
  expect(screen.getAllByRole('checkbox')).toHaveLength(3);
  fireEvent.click(screen.getByRole('checkbox', { name: /^Box 62, 127\.0\.0\.62/ }));
  fireEvent.click(screen.getByRole('button', { name: 'Adopt 2' }));
  await settled();
  const machines = proposed().flatMap(({ kind, after }) => (kind === 'machine' ? [(after as Machine).name] : []));
  expect(machines).toEqual(['Box 61', 'Box 63']);
});

test('those that were chosen in the list are ticked, the others are not', async () => {
  machineSelection.set(['127.0.0.63']);
  await page();
  expect(screen.getAllByRole('checkbox', { checked: true })).toHaveLength(1);
  expect(screen.getByRole('button', { name: 'Adopt 1' })).toBeTruthy();
});

test('two boxes at one address are two machines of the plan', async () => {
  machineSelection.set([]);
  const twins = ['02:00:00:00:00:71', '02:00:00:00:00:72'].map((mac) => nodeAt('127.0.0.71', 'Twin', mac));
  await open(<AdoptPage />, { records, live: liveOf(records, { nodes: twins }) });
  fireEvent.click(screen.getByRole('button', { name: 'Adopt 2' }));
  await settled();
  const machines = proposed().filter(({ kind }) => kind === 'machine');
  expect(new Set(machines.map(({ id }) => id)).size).toBe(2);
});
