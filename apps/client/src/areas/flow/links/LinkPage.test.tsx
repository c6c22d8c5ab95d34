import { fireEvent, screen, within } from '@testing-library/react';
import { nightFerry } from '@taxiarch/core/whole/demo';
import type { ShowRecords } from '@taxiarch/core/show/records';
import { routed } from '@/testing/router';
import { asked, liveOf, open, proposed, settled } from '@/testing/server';
import { LinkPage } from './LinkPage';

const ferry = nightFerry();
const page = (records: ShowRecords, params: Record<string, string>) =>
  open(<LinkPage />, { records, live: liveOf(records), params });
const lines = () => within(screen.getByRole('list', { name: 'The doctor’s list' })).getAllByRole('listitem');
const line = (title: RegExp) => lines().find((one) => title.test(one.textContent ?? ''))!;
const link = (over: object): ShowRecords => ({
  ...ferry,
  link: ferry.link.map((one) => (one.id === 'link-bridge-artnet' ? { ...one, ...over } : one)),
});

test('ten lines, each with its word and how it is known; what cannot be seen is answered by a person', async () => {
  await page(ferry, { link: 'link-bridge-artnet' });
  expect(lines()).toHaveLength(10);
  // By the plan alone nothing is fine.
  expect(line(/On one computer/).textContent).toMatch(/planned.*worked out/);
  const asks = line(/No firewall between/);
  expect(asks.textContent).toMatch(/open.*not known/);
  fireEvent.click(within(asks).getByRole('button', { name: 'I looked: it is well, No firewall between' }));
  await settled();
  const [change] = proposed();
  expect(change!.kind).toBe('sighting');
  expect(change!.after).toMatchObject({
    about: { kind: 'link', id: 'link-bridge-artnet', part: '' },
    question: 'firewall',
    answer: 'yes',
  });
});

test('a base that differs is the loudest thing, and its repair is one press', async () => {
  await page(link({ receiverBase: 0 }), { link: 'link-bridge-artnet' });
  expect(screen.getByRole('heading', { level: 1 }).textContent).toMatch(/1 thing to mend\.$/);
  fireEvent.click(screen.getByRole('button', { name: 'Say that it counts from 1' }));
  await settled();
  expect(asked).toMatchObject([{ body: { changes: [{ after: { receiverBase: 1 } }] } }]);
});

test('universes are named as both displays show them', async () => {
  await page(ferry, { link: 'link-bridge-artnet' });
  expect(
    screen.getByText(/^9: sent as Art-Net 0\.0\.8, shown as 9; received as Art-Net 0\.0\.8, shown as 9$/),
  ).toBeTruthy();
});

test('a new link is proposed one to one, and says what it lacks until it is whole', async () => {
  await page(ferry, { link: 'new' });
  expect(screen.getByText('Choose the sender.')).toBeTruthy();
  fireEvent.change(screen.getByLabelText('Sender'), { target: { value: 'machine-stern' } });
  expect(screen.getByRole('group', { name: 'Line 1' })).toBeTruthy();
  // The only visualiser of the show is meant, unless a new one is asked for.
  expect(screen.getByLabelText<HTMLSelectElement>('Visualiser').value).toBe('machine-crow');
  fireEvent.change(screen.getByLabelText('Visualiser'), { target: { value: '' } });
  expect(screen.getByText('Choose the visualiser, or name a new one.')).toBeTruthy();
  fireEvent.change(screen.getByLabelText('Visualiser'), { target: { value: 'machine-crow' } });
  fireEvent.click(screen.getByRole('radio', { name: 'Either' }));
  fireEvent.click(screen.getByRole('button', { name: 'Add the link' }));
  await settled();
  expect(proposed()[0]!.after).toMatchObject({
    senderId: 'machine-stern',
    lines: [{ from: 3, count: 6, to: 3 }],
    startsFirst: 'either',
  });
  expect(routed.sent[0]).toMatch(/^\/flow\/links\//);
});

test('a link that is gone says so', async () => {
  await page(ferry, { link: 'link-nowhere' });
  expect(screen.getByText('This link isn’t in the show. It was deleted, or the address is wrong.')).toBeTruthy();
});
