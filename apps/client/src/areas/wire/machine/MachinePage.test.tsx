import { fireEvent, screen, within } from '@testing-library/react';
import type { PushReply } from '@taxiarch/core/whole/contract';
import type { NodeReport } from '@taxiarch/core/network/node';
import { nightFerry } from '@taxiarch/core/whole/demo';
import { answers, asked, liveOf, open, proposed, refusal, settled } from '@/testing/server';
import { nodeAt } from '@/testing/nodes';
import { MachinePage } from './MachinePage';

const records = nightFerry();
const quay = records.machine.find(({ id }) => id === 'machine-quay')!;
/** The quay node as it answers; what is left out is as anybody would have it. */
const answering = (over: Partial<NodeReport> = {}) =>
  nodeAt(quay.interfaces[0]!.addresses[0]!.address, quay.name, quay.interfaces[0]!.mac, over);
const page = (nodes: NodeReport[], output = {}) =>
  open(<MachinePage />, {
    records,
    params: { machine: quay.id },
    live: liveOf(records, {
      nodes,
      output: { hot: true, since: 1, by: '', holds: [], rate: 0, pictures: [], targets: {}, ...output },
    }),
  });
const rows = () => within(screen.getByRole('table', { name: 'What differs' })).getAllByRole('row');

test('a planned machine that nobody hears is missing', async () => {
  await page([]);
  expect(screen.getByRole('heading', { level: 1 }).textContent).toBe(`${quay.name} does not answer.`);
  expect(screen.getByText('missing')).toBeTruthy();
  expect(screen.queryByRole('button', { name: /Push/ })).toBeNull();
});

test('what differs stands planned beside seen, and nothing else does', async () => {
  await page([answering({ shortName: 'Somebody' })]);
  const texts = rows().map(({ textContent }) => textContent);
  expect(texts.some((text) => text!.includes(quay.name) && text!.includes('Somebody'))).toBe(true);
  expect(texts.every((text) => !text!.includes('A box on the quay'))).toBe(true);
});

test('a push tells of each field how it came out, and what is left for the front panel', async () => {
  const fields = [
    { what: 'Name', planned: quay.name, seen: quay.name, state: 'done', panel: '' },
    { what: 'Port 1, merge', planned: 'highest wins', seen: 'latest wins', state: 'refused', panel: '' },
  ] as const;
  const reply: PushReply = {
    results: [{ machineId: quay.id, trouble: '', fields, byHand: ['Set the start of port 1 to black.'] }],
  };
  await page([answering({ shortName: 'Somebody' })]);
  answers.set('/api/nodes/push', reply);
  fireEvent.click(screen.getByRole('button', { name: 'Push to node' }));
  await settled();
  expect(asked).toEqual([{ method: 'POST', path: '/api/nodes/push', body: { machineIds: [quay.id] } }]);
  for (const text of ['done', 'refused', 'not supported', 'Set the start of port 1 to black.'])
    expect(screen.getAllByText(text).length).toBeGreaterThan(0);
});

test('while safe a push makes hot first, and its button says so', async () => {
  await page([answering({ shortName: 'Somebody' })], { hot: false });
  answers.set('/api/nodes/push', { results: [] });
  fireEvent.click(screen.getByRole('button', { name: 'Make hot and push to node' }));
  await settled();
  expect(asked.map(({ path }) => path)).toEqual(['/api/output/hot', '/api/nodes/push']);
});

test('a push that is refused says why, and can be tried again', async () => {
  await page([answering({ shortName: 'Somebody' })]);
  answers.set('/api/nodes/push', refusal(409, 'The quay node is locked.'));
  fireEvent.click(screen.getByRole('button', { name: 'Push to node' }));
  await settled();
  expect(screen.getByText('The quay node is locked.')).toBeTruthy();
  expect(screen.getByRole('button', { name: 'Push to node' }).getAttribute('aria-disabled')).not.toBe('true');
});

test('taking over writes what is on the wire into the plan', async () => {
  await page([answering({ shortName: 'Somebody' })]);
  fireEvent.click(screen.getByRole('button', { name: 'Adopt' }));
  const preview = within(screen.getByRole('region', { name: 'Preview' }));
  fireEvent.click(preview.getByRole('button', { name: /^Adopt/ }));
  await settled();
  expect(asked).toMatchObject([{ path: '/api/edits', body: { changes: [{ kind: 'machine', id: quay.id }] } }]);
  expect(proposed()[0]!.after).toMatchObject({ name: 'Somebody' });
});

test('it shows itself by its lights, and the button says how to stop it', async () => {
  await page([answering({ shortName: 'Somebody', indicators: 'locate' })]);
  fireEvent.click(screen.getByRole('button', { name: 'Stop locating' }));
  await settled();
  expect(asked).toMatchObject([{ path: '/api/nodes/locate', body: { on: false } }]);
});

test('a stranger is adopted as it is, or said to be a machine that is missing', async () => {
  const stranger = answering({ address: '127.0.0.99', mac: '02:00:00:00:00:99', shortName: 'Unknown' });
  await open(<MachinePage />, {
    records,
    params: { machine: '127.0.0.99' },
    live: liveOf(records, { nodes: [stranger] }),
  });
  expect(screen.getByRole('heading', { level: 1 }).textContent).toBe('Unknown is in no plan.');
  fireEvent.change(screen.getByLabelText('It is'), { target: { value: quay.id } });
  fireEvent.click(screen.getByRole('button', { name: `It is ${quay.name}` }));
  await settled();
  expect(asked).toMatchObject([
    { body: { changes: [{ kind: 'machine', id: quay.id, after: { interfaces: [{ mac: '02:00:00:00:00:99' }] } }] } },
  ]);
});
