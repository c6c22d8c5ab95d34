import { fireEvent, screen, within } from '@testing-library/react';
import { nightFerry } from '@taxiarch/core/whole/demo';
import type { Lamp, ShowRecords } from '@taxiarch/core/show/records';
import { asked, open, settled } from '@/testing/server';
import { FindingsPage } from './FindingsPage';

const ferry = nightFerry();
const withLamp = (id: string, over: Partial<Lamp>): ShowRecords => ({
  ...ferry,
  lamp: ferry.lamp.map((one) => (one.id === id ? { ...one, ...over } : one)),
});
const card = (text: RegExp) => screen.getAllByRole('listitem').find((one) => text.test(one.textContent ?? ''))!;

test('a patch without faults says what would stand here', async () => {
  await open(<FindingsPage />, { records: ferry });
  expect(screen.getByText('The patch has no faults.')).toBeTruthy();
  expect(screen.getByText(/Overlaps, lamps past channel 512/)).toBeTruthy();
});

test('an overlap has several ways to mend it, each shown before it is written', async () => {
  await open(<FindingsPage />, { records: withLamp('lamp-102', { channel: 11 }) });
  const overlap = card(/overlap|share/i);
  fireEvent.click(within(overlap).getByRole('button', { name: 'Mend' }));
  const ways = within(overlap).getAllByRole('radio');
  expect(ways.length).toBeGreaterThanOrEqual(2);
  fireEvent.click(ways[1]!);
  const label = ways[1]!.textContent!;
  expect(asked).toEqual([]);
  fireEvent.click(within(overlap).getByRole('button', { name: new RegExp(`^${label.slice(0, 20)}`) }));
  await settled();
  expect(asked).toHaveLength(1);
});

test('a lamp past 512 is named with its sentence, and leads to its page', async () => {
  await open(<FindingsPage />, { records: withLamp('lamp-101', { channel: 500 }) });
  const past = card(/512/);
  expect(past.textContent).toContain('must fix');
  expect(within(past).getByText('101 Port spot 1')).toBeTruthy();
});

test('of very many the first stand there, and the rest are counted', async () => {
  const records = { ...ferry, lamp: ferry.lamp.map((one) => ({ ...one, number: 1 })) };
  const many = { ...records, lamp: records.lamp.map((one) => ({ ...one, universe: one.universe + 900 })) };
  await open(<FindingsPage />, { records: many });
  expect(screen.getAllByRole('listitem').length).toBeLessThanOrEqual(50);
});
