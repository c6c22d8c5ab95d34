import { fireEvent, screen } from '@testing-library/react';
import { nightFerry } from '@taxiarch/core/whole/demo';
import { rigSelection } from '@/data/selection';
import { open } from '@/testing/server';
import { DipPage } from './DipPage';

const records = nightFerry();
const switches = () => screen.getAllByRole('img').map((one) => one.getAttribute('aria-label'));
const on = (label: string | null) => [...label!.matchAll(/(\S+) on/g)].map(([, name]) => name);
afterEach(() => rigSelection.set([]));

test('with no lamp chosen it says what to do', async () => {
  await open(<DipPage />, { records });
  expect(screen.getByText(/Choose lamps in the list/)).toBeTruthy();
});

test('nine switches a lamp, by the binary weights of its start channel', async () => {
  // 2/1, 2/24 and 2/47
  rigSelection.set(['lamp-101', 'lamp-102', 'lamp-103']);
  await open(<DipPage />, { records });
  expect(screen.getByText('Address switches of 3 lamps.')).toBeTruthy();
  expect(switches().map(on)).toEqual([['1'], ['4', '5'], ['1', '2', '3', '4', '6']]);
});

test('counted from 0, turned round, and with fixed switches behind', async () => {
  rigSelection.set(['lamp-102']);
  await open(<DipPage />, { records });
  fireEvent.click(screen.getByRole('radio', { name: 'Channel 1 is 0' }));
  expect(switches().map(on)).toEqual([['1', '2', '3', '5']]);
  fireEvent.click(screen.getByRole('radio', { name: 'Switch 1 right' }));
  expect(switches()[0]).toMatch(/^9 off, 8 off/);
  fireEvent.change(screen.getByLabelText(/Fixed switches/), { target: { value: 'DMX on, test off' } });
  expect(switches()[0]).toMatch(/DMX on/);
  expect(switches()[0]).toMatch(/test off/);
});
