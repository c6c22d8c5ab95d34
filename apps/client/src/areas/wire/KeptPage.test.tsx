import { fireEvent, screen, within } from '@testing-library/react';
import { snapshotOf, STARTING_POINTS, writeSnapshot } from '@taxiarch/core/network/machine';
import { nightFerry } from '@taxiarch/core/whole/demo';
import type { Machine, ShowRecords } from '@taxiarch/core/show/records';
import { machineSelection } from '@/data/selection';
import { answers, asked, open, proposed, settled } from '@/testing/server';
import { KeptPage } from './KeptPage';

const ferry = nightFerry();
const quay = ferry.machine.find(({ id }) => id === 'machine-quay')!;
const kept = { ...snapshotOf(quay, 'kept-1', 'Quay, before', '2026-05-01T10:00:00.000Z'), rev: 3 };
const withKept: ShowRecords = { ...ferry, snapshot: [kept] };
const card = () => within(screen.getByRole('listitem', { name: 'Quay, before' }));
const choose = (name: string) => fireEvent.click(screen.getByRole('checkbox', { name }));
afterEach(() => machineSelection.set([]));

test('starting points are given to several machines; one that has them already is not counted', async () => {
  await open(<KeptPage />, { records: ferry });
  for (const name of ['Boiler node', 'Quay node', 'Foredeck node']) choose(name);
  const give = () => screen.getByRole('button', { name: /^Give to/ });
  const before = Number(/\d+/.exec(give().textContent!)![0]);
  expect(before).toBeGreaterThan(1);
  fireEvent.click(give());
  await settled();
  const changes = proposed();
  expect(changes).toHaveLength(before);
  // Those who were given them are as they should be, and are not given them again.
  const given = new Map(changes.map(({ id, after }) => [id, after as Machine]));
  await open(<KeptPage />, { records: { ...ferry, machine: ferry.machine.map((one) => given.get(one.id) ?? one) } });
  expect(screen.getByText('Nothing would change.')).toBeTruthy();
});

test('a machine whose model cannot do what is asked is left as it is, and says why', async () => {
  const merging = STARTING_POINTS.findIndex(({ ports }) => ports(1, 1)[0]!.merge !== 'none');
  await open(<KeptPage />, { records: ferry });
  fireEvent.change(screen.getByLabelText('Settings'), { target: { value: `point ${merging}` } });
  // A Pair 2 cannot merge.
  const pair = ferry.machine.find(({ modelId }) => modelId === 'model-marram-pair-2')!;
  choose(pair.name);
  expect(screen.getByText(new RegExp(`^${pair.name} is left as it is\\. .+`))).toBeTruthy();
});

test('a snapshot is put back by a push of what was kept', async () => {
  await open(<KeptPage />, { records: withKept });
  answers.set('/api/nodes/push', { results: [] });
  fireEvent.click(card().getByRole('button', { name: 'Put back' }));
  await settled();
  expect(asked.at(-1)).toMatchObject({
    path: '/api/nodes/push',
    body: { machineIds: ['machine-quay'], snapshotId: 'kept-1' },
  });
});

test('compared with the machine as planned it is the same, with another it is told port by port', async () => {
  await open(<KeptPage />, { records: withKept });
  fireEvent.click(card().getByRole('button', { name: 'Compare' }));
  expect(card().getByText('They are the same.')).toBeTruthy();
  fireEvent.change(card().getByLabelText('With'), { target: { value: 'machine-boiler' } });
  expect(card().queryByText('They are the same.')).toBeNull();
  expect(card().getAllByText('→').length).toBeGreaterThan(0);
});

test('it is renamed, and not to nothing', async () => {
  await open(<KeptPage />, { records: withKept });
  fireEvent.click(card().getByRole('button', { name: 'Rename' }));
  fireEvent.change(card().getByLabelText('New name'), { target: { value: '  ' } });
  expect(card().getByRole('button', { name: 'Save' }).getAttribute('aria-disabled')).toBe('true');
  fireEvent.change(card().getByLabelText('New name'), { target: { value: ' Opening night ' } });
  fireEvent.click(card().getByRole('button', { name: 'Save' }));
  await settled();
  expect(proposed()[0]).toMatchObject({ kind: 'snapshot', rev: 3, after: { name: 'Opening night' } });
});

/** A file as the device gives it. */
const file = (text: string) => ({ text: () => Promise.resolve(text) });

test('a file of settings comes in as a snapshot; one that is none is refused in a sentence', async () => {
  await open(<KeptPage />, { records: ferry });
  const input = screen.getByLabelText('File of kept settings');
  fireEvent.change(input, { target: { files: [file('{"a":1}')] } });
  await settled();
  expect(asked).toEqual([]);
  expect(screen.getByText(/^These are no settings of a node/)).toBeTruthy();
  fireEvent.change(input, { target: { files: [file(writeSnapshot(kept))] } });
  await settled();
  expect(proposed()[0]).toMatchObject({ kind: 'snapshot', after: { name: 'Quay, before', ports: kept.ports } });
});
