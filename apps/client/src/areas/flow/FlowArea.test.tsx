import { act, fireEvent, screen, within } from '@testing-library/react';
import { mutate } from 'swr';
import { nightFerry } from '@taxiarch/core/whole/demo';
import { type MachinePort, PLAIN_PORT, type Route } from '@taxiarch/core/show/records';
import { liveOf, open, proposed, settled } from '@/testing/server';
import { FlowArea } from './FlowArea';

const records = nightFerry();
const WIDE = 1280;
const only = (text: string) => fireEvent.change(screen.getByLabelText('Only'), { target: { value: text } });
const names = () =>
  screen.getAllByRole('link').flatMap(({ textContent }) => /^\d+ .*/.exec(textContent ?? '')?.[0] ?? []);

test('a row for each universe, held to what is asked for', async () => {
  await open(<FlowArea />, { records, path: '/flow' });
  // A long list draws what is in sight, and a little more.
  expect(names().length).toBeGreaterThanOrEqual(12);
  expect(names()[0]).toBe('1 Foredeck and wheelhouse');
  only('lamp 101');
  expect(names()).toEqual(['2 Port spots']);
  only('1-3');
  expect(names()).toHaveLength(3);
  only('nothing of the kind');
  expect(screen.getByText('No universe fits what is asked for.')).toBeTruthy();
});

test('a sender that is planned and not heard is said beside its name', async () => {
  const live = liveOf(records);
  const universes = live.universes.map((one) =>
    one.show === 1 ? { ...one, state: 'silent' as const, streams: [] } : one,
  );
  await open(<FlowArea />, { records, path: '/flow', live: { ...live, universes } });
  only('1');
  expect(screen.getByText('Bridge desk, not heard')).toBeTruthy();
  expect(screen.getByText('silent')).toBeTruthy();
});

test('universes are chosen and routed in one act, after all lines were shown', async () => {
  await open(<FlowArea />, { records, path: '/flow' });
  fireEvent.click(screen.getByRole('button', { name: 'Route a range' }));
  only('9-10');
  fireEvent.click(screen.getByRole('button', { name: 'Choose shown' }));
  fireEvent.change(screen.getByLabelText('The first goes to'), { target: { value: 'sACN 209' } });
  const preview = within(screen.getByRole('region', { name: 'Preview' }));
  fireEvent.click(preview.getByRole('button', { name: 'Plan the routes' }));
  await settled();
  expect(proposed().flatMap(({ kind, after }) => (kind === 'route' ? (after as Route).out : []))).toEqual([
    { protocol: 'sacn', number: 209 },
    { protocol: 'sacn', number: 210 },
  ]);
});

test('findings of the plan are told in the sentence', async () => {
  const finding = { rule: 'x', weight: 'must fix' as const, subjects: [], sentence: 'S.', evidence: [] };
  await open(<FlowArea />, { records, path: '/flow', findings: [finding, { ...finding, sentence: 'T.' }] });
  expect(screen.getByRole('heading', { level: 1 }).textContent).toContain('2 findings.');
});

test('the picture puts together what goes one way; opened, each stands by itself', async () => {
  await open(<FlowArea />, { records, path: '/flow', width: WIDE });
  fireEvent.click(screen.getByRole('radio', { name: 'Picture' }));
  const picture = () => within(screen.getByRole('group', { name: 'Picture of the flow' }));
  fireEvent.click(picture().getByRole('button', { name: /^3-5, 7-8,? 5 by sACN/ }));
  expect(screen.getByLabelText<HTMLInputElement>('Only').value).toBe('3-5, 7-8');
  expect(picture().getAllByRole('link', { name: /sACN/ })).toHaveLength(5);
  fireEvent.click(screen.getByRole('checkbox', { name: 'Universes that go one way together' }));
  expect(picture().getAllByRole('button')).toHaveLength(1);
});

test('a port that a machine gets while the picture stands is named on its way', async () => {
  const driver = records.machine.find(({ controller }) => controller?.firstUniverse === 14)!;
  const port: MachinePort = { ...PLAIN_PORT, number: 1, use: 'out', protocol: 'artnet', universe: 14 };
  const given = records.machine.map((one) => (one === driver ? { ...one, ports: [port] } : one));
  await open(<FlowArea />, { records, path: '/flow', width: WIDE });
  fireEvent.click(screen.getByRole('radio', { name: 'Picture' }));
  only('14');
  // A pixel controller takes the universe without a port of its own.
  expect(screen.queryByText('port 1')).toBeNull();
  await act(() => mutate('/api/show', { seq: 2, records: { ...records, machine: given } }, { revalidate: false }));
  expect(screen.getByText('port 1')).toBeTruthy();
});

test('on a phone each way is a picture of its own, from top to bottom', async () => {
  await open(<FlowArea />, { records, path: '/flow' });
  fireEvent.click(screen.getByRole('radio', { name: 'Picture' }));
  expect(screen.getAllByRole('group', { name: 'Picture of the flow' }).length).toBeGreaterThan(10);
});
