import { fireEvent, screen, within } from '@testing-library/react';
import type { HistoryReply, Settings } from '@taxiarch/core/whole/contract';
import { nightFerry } from '@taxiarch/core/whole/demo';
import { personName } from '@/data/preferences';
import { answers, asked, open, refusal, settled } from '@/testing/server';
import { ShowPage } from './ShowPage';

const records = nightFerry();
const settings: Settings = {
  interface: 'auto',
  artnetInterface: 'same',
  outputRate: 44,
  outputPriority: 150,
  artnetBroadcast: false,
  poll: true,
  listed: true,
  listedMost: 256,
  mostGroups: 4096,
  sendIpv6: false,
  diagnostics: false,
  changes: false,
  rdmShare: 20,
  rollEvery: 0,
  outputSync: 0,
  outputArtSync: false,
  stations: false,
  stationName: 'Taxiarch',
  stationGroup: 'Default',
  citp: false,
  selects: false,
  artnetTimeout: 10_000,
};
const edit = (seq: number, sentence: string) => ({ seq, sentence, author: 'Ivo', at: '2026-05-01T10:00:00.000Z' });
const history: HistoryReply = {
  edits: [edit(9, 'Moved lamp 101'), edit(8, 'Added lamps')],
  earlier: 7,
  undo: 9,
  redo: null,
};

const page = () =>
  open(<ShowPage />, {
    records,
    says: { '/api/settings': settings, [`/api/history?author=${personName.read()}&newest=30`]: history },
  });
const press = async (name: string) => {
  fireEvent.click(screen.getByRole('button', { name }));
  await settled();
};

test('the show in a sentence, and who did what, newest first', async () => {
  await page();
  expect(screen.getByRole('heading', { level: 1 }).textContent).toMatch(
    /^Night Ferry: 420 lamps, 40 universes, \d+ machines\.$/,
  );
  expect(screen.getByText('Moved lamp 101').compareDocumentPosition(screen.getByText('Added lamps'))).toBe(
    Node.DOCUMENT_POSITION_FOLLOWING,
  );
  expect(screen.getByRole('button', { name: 'Show 7 earlier' })).toBeTruthy();
});

test('undo goes to the server; redo waits until there is something', async () => {
  await page();
  answers.set('/api/undo', { seq: 10, at: '', author: 'Ivo', sentence: 'Took back', changes: [] });
  await press('Undo');
  expect(asked).toMatchObject([{ path: '/api/undo' }]);
  expect(screen.getByRole('button', { name: 'Redo' }).getAttribute('aria-disabled')).toBe('true');
});

test('an undo that is refused says why', async () => {
  await page();
  answers.set('/api/undo', refusal(409, 'Stella changed lamp 101 after you.'));
  await press('Undo');
  expect(screen.getByText('Stella changed lamp 101 after you.')).toBeTruthy();
});

test('settings of sending are written one by one, within their bounds', async () => {
  await page();
  fireEvent.change(screen.getByRole('slider', { name: 'Frames a second while values change' }), {
    target: { value: '0' },
  });
  await settled();
  expect(asked.at(-1)).toEqual({ method: 'PATCH', path: '/api/settings', body: { outputRate: 1 } });
  fireEvent.change(screen.getByRole('slider', { name: 'An Art-Net stream is lost after, in seconds' }), {
    target: { value: '4' },
  });
  await settled();
  expect(asked.at(-1)!.body).toEqual({ artnetTimeout: 4000 });
});

test('a show that ships takes the place of this one only when the person is sure', async () => {
  await page();
  await press('Open Night Ferry, bad night');
  expect(screen.getByText(/Undo brings that back/)).toBeTruthy();
  await press('Leave it');
  expect(asked).toEqual([]);
  answers.set('/api/show/shipped', { seq: 11, at: '', author: 'Ivo', sentence: 'Opened', changes: [] });
  await press('Open Night Ferry, bad night');
  await press('Open it');
  expect(asked).toMatchObject([{ path: '/api/show/shipped', body: { show: 'bad-night' } }]);
});

test('the name that stands in the history is the person’s', async () => {
  await page();
  fireEvent.change(screen.getByLabelText('Your name'), { target: { value: ' Marit ' } });
  expect(personName.read()).toBe('Marit');
  fireEvent.change(screen.getByLabelText('Your name'), { target: { value: ' ' } });
  // Nobody: the next thing done asks.
  expect(personName.read()).toBe('');
});

test('hot is made here too, by a person', async () => {
  await page();
  expect(screen.getByText('Taxiarch is safe: it sends no values, whatever is pressed.')).toBeTruthy();
  await press('Make hot');
  expect(asked).toMatchObject([{ path: '/api/output/hot', body: { hot: true } }]);
});

test('an edit of the history opens: what changed, and the way back to it after a look at what that undoes', async () => {
  await page();
  const lines = [{ subject: 'lamp 101 Bow wash, channel', before: '1', after: '300' }];
  answers.set('/api/history/8', { ...edit(8, 'Added lamps'), lines, more: 3, later: 1 });
  answers.set('/api/history/8/return', edit(10, 'Went back to: Added lamps'));
  fireEvent.click(screen.getByRole('button', { name: /^Added lamps/ }));
  await settled();
  const opened = within(screen.getByRole('region', { name: 'Edit 8' }));
  expect(opened.getByText('1 → 300')).toBeTruthy();
  expect(opened.getByText('and 3 lines more')).toBeTruthy();
  await press('Go back to here');
  await press('Cancel');
  expect(asked.some(({ path }) => path === '/api/history/8/return')).toBe(false);
  await press('Go back to here');
  await press('Undo 1 edit');
  expect(asked.find(({ path }) => path === '/api/history/8/return')!.body).toEqual({ author: personName.read() });
});
