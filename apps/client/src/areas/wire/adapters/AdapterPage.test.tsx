import { fireEvent, screen } from '@testing-library/react';
import type { LiveReport, PlugValuesReply } from '@taxiarch/core/whole/contract';
import { nightFerry } from '@taxiarch/core/whole/demo';
import type { PlugReport } from '@taxiarch/core/protocol/plug';
import { PLAIN_MACHINE, PLAIN_PORT, type Machine } from '@taxiarch/core/show/records';
import { answers, asked, liveOf, open, proposed, refusal, settled } from '@/testing/server';
import { AdapterPage } from './AdapterPage';
import { AdaptersPage } from './AdaptersPage';
import { SameComputerPage } from './SameComputerPage';

const ferry = nightFerry();
const adapter: Machine = {
  ...PLAIN_MACHINE,
  ...{ id: 'plug', rev: 3, name: 'Chart plug', kind: 'USB adapter', serial: 'A12', placeId: null },
  ports: [{ ...PLAIN_PORT, number: 1, use: 'out', protocol: 'sacn', universe: 2 }],
  line: { at: '', slots: 24, routeId: null },
};
const records = { ...ferry, machine: [...ferry.machine, adapter] };
const runs = (over: Partial<PlugReport> = {}): PlugReport => ({
  ...{ machineId: 'plug', use: 'out', state: 'runs', why: '', by: 'Mara', since: 1, path: '/dev/plug', rate: 40 },
  ...{ wanted: 40, frames: 1200, back: 0, wentAt: null, silent: false },
  ...over,
});
const levels = (over: Record<number, number> = {}) => Array.from({ length: 512 }, (_, i) => over[i + 1] ?? 0);
const page = (plug?: PlugReport, values?: PlugValuesReply, live: Partial<LiveReport> = {}) =>
  open(<AdapterPage />, {
    records,
    live: liveOf(records, { ...(plug && { plugs: [plug] }), ...live }),
    params: { adapter: 'plug' },
    says: values ? { '/api/plugs/plug/values': values } : {},
  });
const heading = () => screen.getByRole('heading', { level: 1 }).textContent;
const press = async (name: string) => {
  fireEvent.click(screen.getByRole('button', { name }));
  await settled();
};
const HOT = { output: { hot: true, since: 0, by: 'Ivo', holds: [], rate: 0, pictures: [], targets: {} } };

test('off, it is made hot and sends only when a person presses that', async () => {
  await page();
  expect(heading()).toBe('Chart plug is off.');
  await press('Make hot and send');
  expect(asked.map(({ path, body }) => [path, body])).toEqual([
    ['/api/output/hot', { hot: true, by: 'Ivo' }],
    ['/api/plugs/run', { ids: ['plug'], on: true, by: 'Ivo' }],
  ]);
});

test('both ends are held against each other, and what differs is marked', async () => {
  const values = {
    here: levels({ 3: 80, 30: 9 }),
    plug: levels({ 3: 80 }),
    far: levels({ 3: 81 }),
    says: 'It is open.',
  };
  await page(runs(), values, HOT);
  expect(heading()).toBe('Chart plug sends 40 frames a second.');
  // Only the 24 slots that leave it count.
  expect(screen.getByText(/^1 channel of 24 differs, here and on the line/)).toBeTruthy();
  expect(screen.getByLabelText('Channel 3: 80 and 81, differing')).toBeTruthy();
  expect(screen.getByLabelText('Channel 4: 0 and 0')).toBeTruthy();
  expect(screen.getByText('Said by the stand-in at its far end: It is open.')).toBeTruthy();
  fireEvent.click(screen.getByRole('checkbox', { name: /^Only channels/ }));
  expect(screen.queryByLabelText('Channel 4: 0 and 0')).toBeNull();
});

test('without a witness at the far end only what leaves is said', async () => {
  await page(runs(), { here: levels(), plug: levels(), far: null, says: '' }, HOT);
  expect(screen.getByText('All 24 channels are alike here and out of the plug.')).toBeTruthy();
});

test('gone, slow, silent and not allowed are said', async () => {
  await page(
    runs({ state: 'gone', why: 'Chart plug is not plugged in: no port has the serial number A12.' }),
    undefined,
    HOT,
  );
  expect(heading()).toContain('is not there: Chart plug is not plugged in');
  await page(runs({ why: 'The port reaches 31.0 of 44 frames a second.' }), undefined, HOT);
  expect(heading()).toBe('Chart plug: The port reaches 31.0 of 44 frames a second.');
  await page(runs({ silent: true }), undefined, HOT);
  expect(heading()).toContain('though nobody sends its universe');
  await page(runs({ silent: true, frames: 0, rate: 0 }), undefined, HOT);
  expect(heading()).toContain('waits: nobody has sent its universe yet');
  await page(undefined, undefined, HOT);
  answers.set('/api/plugs/run', refusal(422, 'Universe 2 is not in the show.'));
  await press('Send');
  expect(screen.getByText('Universe 2 is not in the show.')).toBeTruthy();
});

test('a new one begins with the serial number of the port that was chosen', async () => {
  await open(<AdapterPage />, { records: ferry, params: { adapter: 'new', serial: 'B7' } });
  fireEvent.change(screen.getByLabelText('Name'), { target: { value: 'Tally plug' } });
  fireEvent.click(screen.getByRole('radio', { name: 'Takes in a desk' }));
  fireEvent.change(screen.getByLabelText('Universe'), { target: { value: '40' } });
  await press('Add the adapter');
  expect(proposed()[0]!.after).toMatchObject({
    ...{ name: 'Tally plug', kind: 'USB adapter', serial: 'B7', line: { at: '', slots: 512, routeId: null } },
    ports: [{ use: 'in', universe: 40 }],
  });
});

test('serial ports are listed with what they are known by; one that cannot be known again cannot be used', async () => {
  const ports = [
    { path: '/dev/a', maker: 'Saltcote', serial: 'A12', name: '' },
    { path: '/dev/b', maker: 'Saltcote', serial: 'B7', name: '' },
    { path: '/dev/c', maker: '', serial: '', name: '' },
  ];
  await open(<AdaptersPage />, {
    records,
    live: liveOf(records, { plugs: [runs({ state: 'gone', why: 'x' })] }),
    says: { '/api/plugs': { plugs: [], ports, why: '' } },
  });
  expect(heading()).toBe('1 of 1 adapter on, 1 not there.');
  expect(screen.getByText('in the show')).toBeTruthy();
  expect(screen.getByRole('button', { name: 'Use /dev/b' })).toBeTruthy();
  expect(screen.queryByRole('button', { name: 'Use /dev/c' })).toBeNull();
  expect(screen.getByText(/cannot be known again/)).toBeTruthy();
});

test('of two programs on one computer each step is told as far as it is seen', async () => {
  const lo = {
    name: 'lo',
    address: '127.0.0.1',
    netmask: '255.0.0.0',
    mac: '',
    loopback: true,
    medium: 'loopback',
    up: true,
  };
  const says = {
    '/api/interfaces': { interfaces: [lo], chosen: 'plan', artnetChosen: 'same', inUse: lo, artnetInUse: lo },
  };
  await open(<SameComputerPage />, { records: ferry, live: liveOf(ferry, { universes: [] }), says });
  expect(heading()).toBe('1 step of 5 not so yet.');
  expect(screen.getByText('No stream of another program of this computer is heard.')).toBeTruthy();
  expect(screen.getAllByText('not known')).toHaveLength(3);
  await open(<SameComputerPage />, { records: ferry, live: liveOf(ferry), says });
  expect(heading()).toBe('3 of 5 steps seen to be so; 2 cannot be seen from here.');
});
