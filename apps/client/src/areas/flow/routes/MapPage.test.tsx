/** Input channels in a table, edited in place. */
import { fireEvent, screen, within } from '@testing-library/react';
import { nightFerry } from '@taxiarch/core/whole/demo';
import { type Control, PLAIN_INPUT, PLAIN_ROUTE } from '@taxiarch/core/show/records';
import { open, proposed, settled } from '@/testing/server';
import { MapPage } from './MapPage';

const sacn = (number: number) => ({ protocol: 'sacn' as const, number });
const route = {
  ...PLAIN_ROUTE,
  id: 'r',
  rev: 1,
  name: 'Over',
  order: 1,
  inputs: [{ ...PLAIN_INPUT, wire: sacn(1) }],
  out: sacn(101),
};
const fader: Control = {
  id: 'c',
  rev: 4,
  name: 'sACN 41/3',
  wire: sacn(41),
  channel: 3,
  does: 'master',
  target: { kind: 'route', id: 'r' },
  threshold: 128,
};
const page = (control: Control[]) => open(<MapPage />, { records: { ...nightFerry(), route: [route], control } });
const row = (name: string) => within(screen.getByRole('listitem', { name }));

test('a channel is added with two entries, and nothing is written before it is right', async () => {
  await page([]);
  expect(screen.getByRole('heading', { level: 1 }).textContent).toBe('No channels mapped from another desk yet.');
  fireEvent.change(screen.getByLabelText('Input channel, a new channel'), { target: { value: '41' } });
  fireEvent.click(screen.getByRole('button', { name: 'Add channel' }));
  await settled();
  expect(screen.getByRole('alert').textContent).toBe('Write universe and channel, as in 41/3.');
  fireEvent.change(screen.getByLabelText('Input channel, a new channel'), { target: { value: 'sACN 41/3' } });
  fireEvent.change(screen.getByLabelText('Moves, a new channel'), { target: { value: 'master route r' } });
  fireEvent.click(screen.getByRole('button', { name: 'Add channel' }));
  await settled();
  expect(proposed()[0]!.after).toMatchObject({ name: 'sACN 41/3', channel: 3, does: 'master', target: { id: 'r' } });
});

test('a row is changed in its place; a switch asks from which level', async () => {
  await page([fader]);
  const there = row('sACN 41/3');
  expect(there.queryByLabelText('On from, sACN 41/3')).toBeNull();
  fireEvent.change(there.getByLabelText('Moves, sACN 41/3'), { target: { value: 'switch route r' } });
  fireEvent.change(there.getByLabelText('On from, sACN 41/3'), { target: { value: '200' } });
  fireEvent.click(there.getByRole('button', { name: 'Save sACN 41/3' }));
  await settled();
  expect(proposed()[0]).toMatchObject({ id: 'c', rev: 4, after: { does: 'switch', threshold: 200 } });
});

test('a row is deleted by its button, and cancelled it stays as it was', async () => {
  await page([fader]);
  const there = row('sACN 41/3');
  fireEvent.change(there.getByLabelText('Input channel, sACN 41/3'), { target: { value: '41/9' } });
  fireEvent.click(there.getByRole('button', { name: 'Cancel' }));
  expect((there.getByLabelText('Input channel, sACN 41/3') as HTMLInputElement).value).toBe('sACN 41/3');
  fireEvent.click(there.getByRole('button', { name: 'Delete sACN 41/3' }));
  await settled();
  expect(proposed()).toMatchObject([{ kind: 'control', id: 'c', after: null }]);
});
