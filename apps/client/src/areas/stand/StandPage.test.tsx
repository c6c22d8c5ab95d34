import { fireEvent, screen, within } from '@testing-library/react';
import { nightFerry } from '@taxiarch/core/whole/demo';
import { statesNow, type StandingReport, type Trouble } from '@taxiarch/core/truth/known';
import type { Good, ShowRecords } from '@taxiarch/core/show/records';
import { routed } from '@/testing/router';
import { asked, liveOf, open, proposed, settled } from '@/testing/server';
import { nodeAt } from '@/testing/nodes';
import { StandPage } from './StandPage';

const ferry = nightFerry();
const trouble = (over: Partial<Trouble> = {}): Trouble => ({
  about: { kind: 'port', id: 'machine-boiler', part: '1' },
  ask: { kind: 'port', id: 'machine-boiler', part: '1' },
  cause: 'port-off',
  says: 'Port 1 of Boiler node is switched off.',
  sure: 'certain',
  lamps: 54,
  universes: [6],
  repair: 'Switch it on.',
  act: { kind: 'push', machineId: 'machine-boiler' },
  ...over,
});
const standing = (over: Partial<StandingReport> = {}): StandingReport => ({
  verdict: 'Nothing stands against it that can be heard or is said; 420 of 420 lamps nobody has seen.',
  troubles: [],
  unexplained: [],
  more: 0,
  looked: true,
  wire: { of: 40, known: 40, old: 0 },
  ports: { of: 43, known: 42, old: 0 },
  lamps: { of: 420, known: 12, old: 3 },
  asked: { of: 0, known: 0, old: 0 },
  took: 60,
  ...over,
});
const page = (report: StandingReport, records: ShowRecords = ferry) =>
  open(<StandPage />, { records, says: { '/api/standing': report } });

test('each count names its height and how it is known; nothing is called seen that nobody saw', async () => {
  await page(standing());
  const rows = within(screen.getByRole('list', { name: 'How far it is known' })).getAllByRole('listitem');
  expect(rows.map((row) => row.textContent)).toEqual([
    'heard40 of 40 universes as planned on the wire',
    'said42 of 43 ports say that they send it',
    'seen12 of 420 lamps seen to light; 3 before something changed',
  ]);
});

test('what stands against it: how sure, how much light it costs, its repair and Why?', async () => {
  const other = trouble({ says: 'Quay node has no power.', sure: 'open', lamps: 0, act: { kind: 'hand' } });
  await page(standing({ verdict: 'Not yet.', troubles: [trouble(), other] }));
  const cards = within(screen.getByRole('list', { name: 'What stands against it' })).getAllByRole('listitem');
  expect(cards[0]!.textContent).toContain('54 lamps without light or with another, on universe 6');
  expect(cards[1]!.textContent).toMatch(/^It may be: Quay node has no power\.costs no light now/);
  expect(within(cards[0]!).getByRole('button', { name: 'Make hot and push to Boiler node' })).toBeTruthy();
  fireEvent.click(within(cards[0]!).getByRole('button', { name: 'Why? Port 1 of Boiler node is switched off.' }));
  expect(routed.sent).toEqual(['/why?kind=port&id=machine-boiler&part=1']);
});

test('all that is certain and a packet can mend is mended in one push, after a look at what it brings', async () => {
  const at = (id: string, over: Partial<Trouble> = {}) =>
    trouble({ says: `A port of ${id} is off.`, act: { kind: 'push', machineId: `machine-${id}` }, ...over });
  const troubles = [
    at('boiler'),
    at('car-deck'),
    at('quay', { sure: 'likely' }),
    at('saloon', { act: { kind: 'hand' } }),
  ];
  const brings = {
    nodeId: 'machine-boiler',
    port: 1,
    name: 'Port 1 of Boiler node',
    was: 'off',
    becomes: 'sACN 6',
    light: 'goes dark',
    says: 'nobody is heard there now: it would go dark',
    lamps: 54,
  };
  await open(<StandPage />, {
    records: ferry,
    says: {
      '/api/standing': standing({ troubles }),
      '/api/forecast/push': [brings],
      '/api/nodes/push': { results: [] },
    },
  });
  fireEvent.click(screen.getByRole('button', { name: 'Mend all that is certain (2)' }));
  await settled();
  const region = within(screen.getByRole('region', { name: 'Mend all that is certain' }));
  expect(region.getByText('A port of car-deck is off.')).toBeTruthy();
  expect(region.queryByText('A port of quay is off.')).toBeNull();
  expect(region.getByText(/^Port 1 of Boiler node: off → sACN 6; nobody is heard.*and 54 lamps with it$/)).toBeTruthy();
  fireEvent.click(region.getByRole('button', { name: 'Make hot and push to 2 nodes' }));
  await settled();
  expect(asked.find(({ path }) => path === '/api/nodes/push')!.body).toEqual({
    machineIds: ['machine-boiler', 'machine-car-deck'],
  });
});

test('nodes that drifted can be pushed together, whether or not a cause names them; locked ones are left', async () => {
  const drifted = ['boiler', 'quay', 'car-deck'].map((id) => {
    const machine = ferry.machine.find((one) => one.id === `machine-${id}`)!;
    const { addresses, mac } = machine.interfaces[0]!;
    return { machine, node: nodeAt(addresses[0]!.address, 'Renamed', mac) };
  });
  const locked = ferry.machine.map((one) => (one.id === 'machine-quay' ? { ...one, locked: true } : one));
  const records = { ...ferry, machine: locked };
  await open(<StandPage />, {
    records,
    live: liveOf(records, { nodes: drifted.map(({ node }) => node) }),
    says: { '/api/standing': standing({ troubles: [trouble()] }), '/api/forecast/push': [] },
  });
  fireEvent.click(screen.getByRole('button', { name: 'Mend all that is certain (2)' }));
  await settled();
  const region = within(screen.getByRole('region', { name: 'Mend all that is certain' }));
  expect(region.getByText('Port 1 of Boiler node is switched off.')).toBeTruthy();
  expect(region.getByText(/^Car deck node: \d+ settings? differs? from the plan\.$/)).toBeTruthy();
});

test('what no cause explains is told in sentences, and what there was no time for is not called unexplained', async () => {
  await page(standing({ unexplained: ['Boiler node answers.'], more: 2 }));
  expect(screen.getByRole('heading', { name: 'Differs from the plan, and no known cause explains it' })).toBeTruthy();
  expect(screen.getByText('Boiler node answers.')).toBeTruthy();
  expect(screen.getByText('and 2 more')).toBeTruthy();
  await page(standing({ unexplained: ['Boiler node answers.'], looked: false }));
  expect(screen.getByRole('heading', { name: 'Differs, and was not looked at yet' })).toBeTruthy();
});

test('kept as good: how all stands is written down, and what stands otherwise later is told', async () => {
  await page(standing());
  fireEvent.click(screen.getByRole('button', { name: 'Keep this as good' }));
  await settled();
  const kept = proposed()[0]!.after as Good;
  expect(kept).toMatchObject({ by: 'Ivo' });
  expect(kept.states).toContainEqual({ about: 'universe 6', name: 'Universe 6 Engine room', says: 'steady' });

  const states = statesNow(liveOf(ferry).universes, []).map((one) =>
    one.about === 'universe 6' ? { ...one, says: 'contested' } : one,
  );
  await page(standing(), { ...ferry, good: [{ ...kept, rev: 1, states: [...states] }] });
  const changed = within(screen.getByRole('list', { name: 'Changed since it was kept' })).getAllByRole('listitem');
  expect(changed[0]!.textContent).toBe('Universe 6 Engine roomcontested → steady');
});

test('a show without lamps offers the first act', async () => {
  await page(standing({ lamps: { of: 0, known: 0, old: 0 } }), { ...ferry, lamp: [] });
  fireEvent.click(screen.getByRole('button', { name: 'Add lamps' }));
  expect(routed.sent).toEqual(['/rig/add']);
});
