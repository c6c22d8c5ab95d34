import { fireEvent, screen } from '@testing-library/react';
import { nightFerry } from '@taxiarch/core/whole/demo';
import type { Machine, ShowRecords } from '@taxiarch/core/show/records';
import { open } from '@/testing/server';
import { ReachPage } from './ReachPage';

const ferry = nightFerry();
const at = (address: string, prefix: number): Partial<Machine> => ({
  interfaces: [{ name: '', mac: '', addresses: [{ way: 'fixed', address, prefix }] }],
});
const show = (one: Partial<Machine>, other: Partial<Machine>): ShowRecords => ({
  ...ferry,
  machine: ferry.machine.map((machine) =>
    machine.id === 'machine-bridge'
      ? { ...machine, ...one }
      : machine.id === 'machine-quay'
        ? { ...machine, ...other }
        : machine,
  ),
});
async function asked(records: ShowRecords): Promise<string> {
  await open(<ReachPage />, { records });
  fireEvent.change(screen.getByLabelText('From'), { target: { value: 'machine-bridge' } });
  fireEvent.change(screen.getByLabelText('To'), { target: { value: 'machine-quay' } });
  return screen.getByRole('heading', { level: 1 }).textContent ?? '';
}

test('before two are chosen it says what to do', async () => {
  await open(<ReachPage />, { records: ferry });
  expect(screen.getByText(/^Choose two\./)).toBeTruthy();
});

test('two in one network reach each other, shown bit by bit under both masks', async () => {
  expect(await asked(show(at('10.0.0.1', 24), at('10.0.0.77', 24)))).toMatch(/^Yes/);
  expect(screen.getByText('From 10.0.0.1, mask 255.255.255.0')).toBeTruthy();
  expect(screen.getByText('From 10.0.0.77, mask 255.255.255.0')).toBeTruthy();
  expect(screen.getAllByText('fine')).toHaveLength(2);
});

test('two in different networks do not, and the bit at which they part is told', async () => {
  expect(await asked(show(at('10.0.0.1', 24), at('10.0.1.1', 24)))).toMatch(/^No/);
  expect(screen.getAllByText('must fix')).toHaveLength(2);
});

test('where only one mask lets the other in, an answer does not find its way back', async () => {
  expect(await asked(show(at('10.0.0.1', 8), at('10.0.1.1', 24)))).toMatch(/^No/);
  expect(screen.getAllByText('fine')).toHaveLength(1);
  expect(screen.getAllByText('must fix')).toHaveLength(1);
});
