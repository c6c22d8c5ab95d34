import { fireEvent, screen, within } from '@testing-library/react';
import type { CitpPeerReport, ExchangeReply, StationReport } from '@taxiarch/core/whole/contract';
import { nightFerry } from '@taxiarch/core/whole/demo';
import { rigSelection, walkSelection } from '@/data/selection';
import { answers, asked, open, refusal, settled } from '@/testing/server';
import { routed } from '@/testing/router';
import { ExchangePage } from './ExchangePage';

const records = nightFerry();
const SETTINGS = { stations: true, citp: true, selects: true, stationName: 'Taxiarch', stationGroup: 'Default' };
const file = (fileId: string, comment: string) => ({ fileId, comment, fileName: '', size: 2048, at: 1000 });
const station = (over: Partial<StationReport> = {}): StationReport => ({
  ...{ stationId: 's1', name: 'Bridge desk', provider: 'Helm', address: '127.0.0.21', joined: true, trouble: '' },
  ...{ heardAt: Date.now(), commits: [file('f1', 'first'), file('f2', 'as focused')] },
  ...over,
});
const peer = (over: Partial<CitpPeerReport> = {}): CitpPeerReport => ({
  ...{ id: 'p1', name: 'Crow’s nest', type: 'Visualizer', state: 'Running', address: '127.0.0.24', linked: true },
  ...{ trouble: '', lamps: 420, whole: true, patchAt: 5000, differ: [], selected: [], selectedAt: 0 },
  ...over,
});
const reply = (
  list: StationReport[],
  peers: CitpPeerReport[] = [],
  over: Partial<ExchangeReply> = {},
): ExchangeReply => ({
  stations: {
    ...{ mode: 'tcp', url: '', trouble: '', address: '127.0.0.1', port: 4000, asked: null, fetching: null },
    ...{ list, own: [] },
  },
  citp: { trouble: '', chosen: [], peers },
  why: '',
  untold: 0,
  ...over,
});
const page = (says: ExchangeReply | null, settings: object = SETTINGS) =>
  open(<ExchangePage />, {
    records,
    says: { '/api/settings': settings, ...(says && { '/api/exchange': says }) },
  });
const heading = () => screen.getByRole('heading', { level: 1 }).textContent;
const press = async (name: string | RegExp) => {
  fireEvent.click(screen.getByRole('button', { name }));
  await settled();
};
afterEach(() => {
  rigSelection.set([]);
  walkSelection.set([]);
});

test('off: nobody is told and nobody is heard, until a person switches it on', async () => {
  await page(null, { ...SETTINGS, stations: false, citp: false });
  expect(heading()).toBe('The exchange is off: nobody is told of the rig, and nobody is heard.');
  fireEvent.click(screen.getByRole('checkbox', { name: /MVR-xchange/ }));
  await settled();
  expect(asked.at(-1)).toMatchObject({ method: 'PATCH', path: '/api/settings', body: { stations: true } });
});

test('the newest file of a station is compared, older ones on asking; nothing is written', async () => {
  await page(reply([station()]));
  expect(heading()).toBe('1 station and 0 programs by CITP. 1 rig offered.');
  const row = within(screen.getByRole('listitem', { name: 'Bridge desk' }));
  expect(row.getByText(/^as focused · 2 KiB · heard of at/)).toBeTruthy();
  answers.set('/api/exchange/fetch', { id: 'i9' });
  await press('Compare with Bridge desk');
  expect(asked.at(-1)!.body).toEqual({ stationId: 's1', fileId: 'f2' });
  expect(routed.sent.at(-1)).toBe('/rig/arrivals/i9');
  await press(/^1 before/);
  await press('Compare with Bridge desk: first');
  expect(asked.at(-1)!.body).toEqual({ stationId: 's1', fileId: 'f1' });
  expect(asked.some(({ path }) => path === '/api/edits')).toBe(false);
});

test('a station that cannot be joined, or was not heard for long, is not called joined', async () => {
  const lost = station({ stationId: 's2', name: 'Old desk', heardAt: Date.now() - 90_000, commits: [] });
  await page(reply([station({ trouble: 'Bridge desk does not listen where it says.', joined: false }), lost]));
  expect(screen.getByText('Bridge desk does not listen where it says.')).toBeTruthy();
  const old = within(screen.getByRole('listitem', { name: 'Old desk' }));
  expect(old.getByText(/^not heard for/)).toBeTruthy();
  expect(screen.queryByText('joined')).toBeNull();
});

test('a fetch that fails says why', async () => {
  await page(reply([station()]));
  answers.set(
    '/api/exchange/fetch',
    refusal(422, 'Bridge desk fell silent after 1.0 MiB of the file. Nothing was changed.'),
  );
  await press('Compare with Bridge desk');
  expect(screen.getByText(/fell silent after 1\.0 MiB/)).toBeTruthy();
});

test('ours is offered with a comment, to all or to one; who took no note is named', async () => {
  await page(reply([station()]));
  fireEvent.change(screen.getByLabelText('Comment'), { target: { value: 'as hung' } });
  fireEvent.change(screen.getByLabelText('For'), { target: { value: 's1' } });
  answers.set('/api/exchange/commit', {
    fileId: 'x',
    lamps: 420,
    size: 9,
    told: 1,
    not: ['Old desk does not listen where it says.'],
  });
  await press('Offer the rig');
  expect(asked.at(-1)!.body).toEqual({ author: 'Ivo', comment: 'as hung', forIds: ['s1'] });
  expect(screen.getByText('Offered 420 lamps; 1 station took note.')).toBeTruthy();
  expect(screen.getByText('Old desk does not listen where it says.')).toBeTruthy();
});

test('what a program says of its lamps is said, and compared or answered with ours', async () => {
  await page(
    reply([], [peer({ differ: [101, 102] }), peer({ id: 'p2', name: 'Helm', patchAt: 0, linked: false })], {
      untold: 3,
    }),
  );
  const crow = within(screen.getByRole('listitem', { name: 'Crow’s nest' }));
  expect(crow.getByText(/it told 420 lamps; 2 otherwise than here\.$/)).toBeTruthy();
  expect(crow.getByText('differs')).toBeTruthy();
  expect(within(screen.getByRole('listitem', { name: 'Helm' })).getByText('It has not told its lamps.')).toBeTruthy();
  expect(screen.getByText(/^3 lamps of the show cannot be told by CITP/)).toBeTruthy();
  answers.set('/api/exchange/patch/ask', { id: 'i3' });
  await press('Compare with the patch of Crow’s nest');
  expect(routed.sent.at(-1)).toBe('/rig/arrivals/i3');
  answers.set('/api/exchange/patch/give', { lamps: 420 });
  await press('Send our patch to Crow’s nest');
  expect(screen.getByText(/^Sent 420 lamps\./)).toBeTruthy();
});

test('lamps selected there are chosen here or walked; only with consent', async () => {
  const there = reply([], [peer({ selected: [101, 9999] })]);
  await page(there, { ...SETTINGS, selects: false });
  expect(screen.queryByRole('listitem', { name: 'Selected in Crow’s nest' })).toBeNull();
  await page(there);
  expect(screen.getByText('Crow’s nest has selected 101, 9999. 1 of them are not in the show.')).toBeTruthy();
  await press('Choose them here');
  expect(rigSelection.read()).toEqual(['lamp-101']);
  await press('Walk them');
  expect(walkSelection.read()).toEqual(['lamp-101']);
  expect(routed.sent.at(-1)).toBe('/prove');
});

test('somebody asks all to meet at a host: told, and followed only by a press', async () => {
  const asking = reply([station()]);
  const says = {
    ...asking,
    stations: { ...asking.stations!, asked: { from: '10.0.0.9', group: '', url: 'ws://10.0.0.9:4000/' } },
  };
  await page(says);
  expect(asked).toEqual([]);
  answers.set('/api/exchange/move', { url: 'ws://10.0.0.9:4000/' });
  await press('Meet at ws://10.0.0.9:4000/');
  expect(asked.at(-1)!.body).toEqual({ to: 'ws://10.0.0.9:4000/' });
});
