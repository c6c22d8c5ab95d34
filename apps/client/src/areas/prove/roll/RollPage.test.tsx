import { fireEvent, screen, within } from '@testing-library/react';
import { nightFerry } from '@taxiarch/core/whole/demo';
import { rigOf } from '@taxiarch/core/rig/patch';
import { rollOf, type RollNow, type RollPort, type SeenLamp } from '@taxiarch/core/truth/roll';
import { answers, asked, liveOf, open, proposed, refusal, settled } from '@/testing/server';
import { RollPage } from './RollPage';

const records = nightFerry();
const { patch } = rigOf(records);

/** Lamp 701 and those behind it as they answer, but for what is changed. */
const seen = (number: number, over: Partial<SeenLamp> = {}): SeenLamp => {
  const { lamp, type, footprint } = patch.lamp(`lamp-${number}`)!;
  return {
    ...{ uid: `7ff2:${String(number).padStart(8, '0')}`, address: '127.0.0.31', portAddress: 11, says: 'all' },
    ...{ startAddress: lamp.channel, slots: footprint, mode: 2, label: lamp.name, maker: type.maker, model: type.name },
    modes: [
      { name: 'RGBW', slots: 4 },
      { name: 'Intensity RGBW', slots: 5 },
    ],
    ...{
      firmware: '1.0',
      sensors: [],
      hours: 10,
      lightHours: 5,
      strikes: 1,
      switchedOn: 2,
      errors: [],
      parameters: [],
    },
    at: Date.now() - 5000,
    ...over,
  };
};
const port: RollPort = {
  ...{ machineId: 'machine-wheelhouse', name: 'Wheelhouse node', number: 2, address: '127.0.0.31', portAddress: 11 },
  ...{ state: 'asked', found: 18, asked: 100, lost: 0, used: 400, at: Date.now() - 6000 },
};
const progress = {
  ...{ running: false, done: 18, more: 18, of: 18, ports: 1, ofPorts: 1, cancelled: false, why: '' },
  ...{ began: Date.now() - 9000, ended: Date.now() - 5000 },
};
const rollWith = (changes: Readonly<Record<number, Partial<SeenLamp>>>, over: Partial<RollNow> = {}) =>
  rollOf(records, patch, {
    progress,
    seen: Array.from({ length: 18 }, (_, i) => seen(701 + i, changes[701 + i])),
    ports: [port],
    leftAlone: [],
    ...over,
  });
const hot = { hot: true, since: 1, by: 'Ivo', holds: [], rate: 0, pictures: [], targets: {} };
const page = (roll: ReturnType<typeof rollOf>, output = hot) =>
  open(<RollPage />, { records, live: liveOf(records, { output }), says: { '/api/roll': roll } });
const press = async (name: string | RegExp) => {
  fireEvent.click(screen.getByRole('button', { name }));
  await settled();
};
const posted = (path: string) => asked.find((one) => one.path === path)?.body;
const WRONG = { 703: { startAddress: 90 }, 705: { mode: 1, slots: 4 } };

test('how all stand is said first; what differs is mended as the plan has it, and how it came out is told of each', async () => {
  await page(rollWith(WRONG));
  expect(screen.getByRole('heading', { level: 1 }).textContent).toMatch(
    /^16 of 420 lamps answer as planned\. 2 differ/,
  );
  answers.set('/api/lamps/set', {
    results: [
      { uid: seen(703).uid, state: 'done', says: 'Set and read back.' },
      { uid: seen(705).uid, state: 'refused', says: 'It refuses: it is locked against writing.' },
    ],
  });
  await press('Mend 2 at the lamp');
  expect(posted('/api/lamps/set')).toEqual({
    lamps: [
      { uid: seen(703).uid, address: 11 },
      { uid: seen(705).uid, address: 21, mode: 2 },
    ],
  });
  const outcomes = within(screen.getByRole('list', { name: 'How it came out' })).getAllByRole('listitem');
  // What was not done stands first.
  expect(outcomes[0]!.textContent).toMatch(/705 Bridge-wing petal 5: It refuses/);
});

test('while safe a person is asked before anything is set; left safe nothing is', async () => {
  await page(rollWith(WRONG), { ...hot, hot: false });
  await press('Mend 2 at the lamp');
  await press('Leave safe');
  expect(asked).toEqual([]);
  await press('Mend 2 at the lamp');
  await press('Make hot and do it');
  expect(asked.map(({ path }) => path)).toEqual(['/api/output/hot', '/api/lamps/set']);
});

test('one that is chosen alone is mended; what the server refuses is said', async () => {
  await page(rollWith(WRONG));
  fireEvent.click(screen.getByRole('checkbox', { name: 'Choose 705' }));
  answers.set('/api/lamps/set', refusal(409, 'Taxiarch is safe and sets nothing. Make it hot to set lamps.'));
  await press('Mend it at the lamp');
  expect(posted('/api/lamps/set')).toMatchObject({ lamps: [{ uid: seen(705).uid }] });
  expect(screen.getByText(/Make it hot to set lamps/)).toBeTruthy();
});

test('the lamps’ truth is taken into the plan with its consequences', async () => {
  await page(rollWith({ 703: { startAddress: 300 } }));
  await press('Take it into the plan');
  const preview = within(screen.getByRole('region', { name: 'Preview' }));
  expect(preview.getByText(/12\/300/)).toBeTruthy();
  fireEvent.click(preview.getByRole('button', { name: 'Take into the plan' }));
  await settled();
  expect(proposed()[0]!.after).toMatchObject({ channel: 300, uid: seen(703).uid });
});

test('who they are is kept, once nobody differs', async () => {
  await page(rollWith({}));
  await press('Keep who 18 are');
  fireEvent.click(screen.getByRole('button', { name: 'Keep who they are' }));
  await settled();
  expect(proposed()).toHaveLength(18);
});

test('a call counts, and can be ended', async () => {
  const running = { ...progress, running: true, done: 7, more: 0, ended: 0 };
  await page(rollWith({}, { progress: running, ports: [{ ...port, state: 'asking' }] }));
  expect(screen.getByText(/7 of 18 lamps read/)).toBeTruthy();
  await press('End the call');
  expect(asked.map(({ method, path }) => `${method} ${path}`)).toEqual(['DELETE /api/roll/call']);
});

test('lamps in each other’s way are told, and left alone if a person says so', async () => {
  await page(rollWith({ 703: { startAddress: 16 } }));
  const troubles = within(screen.getByRole('list', { name: 'What is wrong with cables' }));
  expect(troubles.getByText(/703 Bridge-wing petal 3 and 704/)).toBeTruthy();
  fireEvent.click(troubles.getByRole('button', { name: /^Leave alone/ }));
  await settled();
  expect(posted('/api/roll/leave-alone')).toMatchObject({ on: true });
});

test('several that are chosen show themselves, and stop', async () => {
  await page(rollWith({}));
  fireEvent.change(screen.getByLabelText('State'), { target: { value: 'as planned' } });
  for (const number of [701, 702]) fireEvent.click(screen.getByRole('checkbox', { name: `Choose ${number}` }));
  answers.set('/api/lamps/identify', { results: [] });
  await press('Show 2');
  await press('Stop showing 2');
  expect(asked.map(({ body }) => (body as { on: boolean }).on)).toEqual([true, false]);
});
