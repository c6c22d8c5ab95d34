import { fireEvent, screen, within } from '@testing-library/react';
import { nightFerry } from '@taxiarch/core/whole/demo';
import type { Lamp } from '@taxiarch/core/show/records';
import { open, proposed, settled } from '@/testing/server';
import { AddLamps } from './AddLamps';

const records = nightFerry();
const type = (label: string, value: string) => fireEvent.change(screen.getByLabelText(label), { target: { value } });
const preview = () => within(screen.getByRole('region', { name: 'Preview' }));
/** The type found by words in any order, and taken. */
async function adding(words: string, name: string) {
  await open(<AddLamps />, { records });
  const again = screen.queryByRole('button', { name: 'Begin anew' });
  if (again) fireEvent.click(again);
  type('Search types', words);
  fireEvent.click(screen.getByText(name).closest('button')!);
}

test('all addresses stand there before anything is written, and then as one edit', async () => {
  await adding('16 spot baleen', 'Baleen Spot 16');
  type('How many', '3');
  type('Number from', '901');
  type('Name, # is the running number', 'Bow spot #');
  expect(screen.getByRole('heading', { level: 1 }).textContent).toMatch(/^3 lamps of Baleen Spot 16, \d+ channels\.$/);
  for (const name of ['901 Bow spot 1', '903 Bow spot 3']) expect(preview().getByText(name)).toBeTruthy();
  fireEvent.click(preview().getByRole('button', { name: 'Add 3 lamps' }));
  await settled();
  const lamps = proposed().flatMap(({ kind, after }) => (kind === 'lamp' ? [after as Lamp] : []));
  expect(lamps.map(({ number, name }) => [number, name])).toEqual([
    [901, 'Bow spot 1'],
    [902, 'Bow spot 2'],
    [903, 'Bow spot 3'],
  ]);
  // None lies on another, nor is cut by a universe's end.
  const spans = lamps.map(({ universe, channel }) => [universe * 512 + channel, channel] as const);
  for (const [i, [at, channel]] of spans.entries()) {
    expect(channel + 12).toBeLessThanOrEqual(512);
    if (i > 0) expect(at - spans[i - 1]![0]).toBeGreaterThanOrEqual(13);
  }
});

test('none, and a number that is none, are refused in a sentence; numbers that are taken are passed over', async () => {
  await adding('lantern saltcote', 'Saltcote Lantern 1k');
  type('How many', '0');
  expect(screen.queryByRole('region', { name: 'Preview' })).toBeNull();
  type('How many', '1');
  type('Number from', 'x');
  expect(screen.getByText('The first number is a whole number from 1.')).toBeTruthy();
  type('Number from', '101');
  expect(preview().getByText('121 Lantern 1k 1')).toBeTruthy();
});

test('a form that is half typed is there again, until one begins anew', async () => {
  await adding('lantern saltcote', 'Saltcote Lantern 1k');
  type('How many', '7');
  await open(<AddLamps />, { records });
  expect(screen.getByLabelText<HTMLInputElement>('How many').value).toBe('7');
  fireEvent.click(screen.getByRole('button', { name: 'Begin anew' }));
  expect(screen.getByText('Add lamps: choose a type first.')).toBeTruthy();
});
