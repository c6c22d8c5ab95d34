import { fireEvent, screen, within } from '@testing-library/react';
import { nightFerry } from '@taxiarch/core/demo';
import { statesNow, type StandingReport, type Trouble } from '@taxiarch/core/known';
import type { Good, ShowRecords } from '@taxiarch/core/records';
import { routed } from '@/testing/router';
import { liveOf, open, proposed, settled } from '@/testing/server';
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
