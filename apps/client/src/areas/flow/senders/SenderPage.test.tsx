import { fireEvent, screen, within } from '@testing-library/react';
import { nightFerry } from '@taxiarch/core/whole/demo';
import type { Machine } from '@taxiarch/core/show/records';
import { routed } from '@/testing/router';
import { liveOf, open, proposed, settled } from '@/testing/server';
import { SenderPage } from './SenderPage';
import { SendersPage } from './SendersPage';

const records = nightFerry();
const type = (label: string, value: string) => fireEvent.change(screen.getByLabelText(label), { target: { value } });
const press = (name: string) => fireEvent.click(screen.getByRole('button', { name }));
const line = (name: string) => fireEvent.click(screen.getByRole('checkbox', { name }));
const preview = () => within(screen.getByRole('region', { name: 'Preview' }));
const page = (sender: string) => open(<SenderPage />, { records, params: { sender } });
async function written(act: string): Promise<NonNullable<Machine['sends']>> {
  fireEvent.click(preview().getByRole('button', { name: new RegExp(`^${act}`) }));
  await settled();
  return (proposed().find(({ kind }) => kind === 'machine')!.after as Machine).sends!;
}

test('its lines say where they go in both countings, and what the machine is allowed', async () => {
  await page('machine-bridge');
  expect(screen.getByText('1-8 → sACN 1-8')).toBeTruthy();
  expect(screen.getByText('9-12 → Art-Net 8-11 (9-12 counted from 1)')).toBeTruthy();
  expect(screen.getByText(/^A Baleen Helm: 12 of 64 universes; \d+ of 32768 parameters\.$/)).toBeTruthy();
});

test('a hundred universes are one line', async () => {
  await page('new');
  type('Name of the machine', 'Harbour desk');
  press('Add a line');
  type('Show universes', '1-100');
  fireEvent.change(screen.getByLabelText('Go to'), { target: { value: 'artnet' } });
  type('First, from 0 or as 0.0.0', '0.1.0');
  press('Put in the table');
  expect(screen.getByText(/^1-100 → Art-Net 16-115/)).toBeTruthy();
  const { lines } = await written('Add the sender');
  expect(lines).toMatchObject([{ from: 1, count: 100, to: { protocol: 'artnet', number: 16 } }]);
  expect(routed.sent).toEqual(['/flow/senders']);
});

test('several lines are set at once; what is left as it is stays so', async () => {
  await page('machine-bridge');
  press('Choose all lines');
  type('sACN priority', '120');
  press('Put in the table');
  const { lines } = await written('Change the sender');
  expect(lines.map(({ from, count, priority, rate }) => [from, count, priority, rate])).toEqual([
    [1, 8, 120, 40],
    [9, 4, 120, 40],
  ]);
});

test('universes that cannot be read are refused in a sentence, and the table stays', async () => {
  await page('machine-gangway');
  line('Universes 40');
  type('Show universes', 'x');
  press('Put in the table');
  expect(within(screen.getByRole('group', { name: 'Line' })).getByText(/“x” is no universe/)).toBeTruthy();
  expect(screen.getByText(/^40 → /)).toBeTruthy();
});

test('a priority that there is not is refused in a sentence, and cannot be written', async () => {
  await page('machine-porthole');
  line('Universes 13-38');
  type('sACN priority', '201');
  press('Put in the table');
  expect(screen.getByText(/priority.*200/i)).toBeTruthy();
  expect(screen.queryByRole('button', { name: /^Change the sender/ })).toBeNull();
});

test('by unicast it says to whom, and a line that is taken out is told with what it leaves dark', async () => {
  await page('machine-bridge');
  line('Universes 1-8');
  fireEvent.change(screen.getByLabelText('Delivery'), { target: { value: 'unicast' } });
  type('To the addresses', '127.0.0.31, 127.0.0.33');
  press('Put in the table');
  line('Universes 9-12');
  press('Delete lines');
  expect(preview().getAllByText(/nobody is planned to send/).length).toBeGreaterThan(0);
  const { lines } = await written('Change the sender');
  expect(lines).toMatchObject([{ from: 1, delivery: 'unicast', addresses: ['127.0.0.31', '127.0.0.33'] }]);
});

test('what was half typed is there again when one comes back', async () => {
  await page('machine-stern');
  type('Letter', 'X');
  await page('machine-stern');
  expect(screen.getByLabelText<HTMLInputElement>('Letter').value).toBe('X');
});

test('a machine of the show that sent nothing can be made to send', async () => {
  await page('new');
  fireEvent.change(screen.getByLabelText('Which machine sends'), { target: { value: 'machine-crow' } });
  expect(screen.queryByLabelText('Name, as it calls itself on the network')).toBeNull();
  press('Add a line');
  type('Show universes', '1');
  press('Put in the table');
  fireEvent.click(preview().getByRole('button', { name: /^Add the sender/ }));
  await settled();
  expect(proposed()).toMatchObject([
    { id: 'machine-crow', after: { sends: { lines: [{ from: 1 }], pennant: { letter: 'C' } } } },
  ]);
});

test('what a machine sends is deleted, and the machine stays', async () => {
  await page('machine-gangway');
  press('Delete what Gangway panel sends');
  fireEvent.click(screen.getByRole('button', { name: /^Delete it/ }));
  await settled();
  expect(proposed()).toMatchObject([{ id: 'machine-gangway', after: { name: 'Gangway panel', sends: null } }]);
});

test('the list says of each whether it is heard', async () => {
  const live = liveOf(records);
  const universes = live.universes.map((one) => ({
    ...one,
    streams: one.streams.filter(({ name }) => name !== 'Porthole'),
  }));
  await open(<SendersPage />, { records, live: { ...live, universes } });
  expect(screen.getByRole('heading', { level: 1 }).textContent).toBe('4 of 5 planned senders heard.');
  expect(screen.getByText('Porthole').closest('a')!.textContent).toContain('○ not heard');
  expect(screen.getByText('Bridge desk').closest('a')!.textContent).toContain('universes 1-12 · priority 100');
});
