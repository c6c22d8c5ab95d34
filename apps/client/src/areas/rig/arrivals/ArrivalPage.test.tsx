/** A file that arrives: the answer first, what is asked, rows found and chosen many at once, and what is written. */
import { fireEvent, screen, within } from '@testing-library/react';
import type { ImportReply, ImportRowReply } from '@taxiarch/core/whole/contract';
import { nightFerry } from '@taxiarch/core/whole/demo';
import { answers, asked, open, refusal, settled } from '@/testing/server';
import { ArrivalPage } from './ArrivalPage';

const records = nightFerry();
const row = (key: string, over: Partial<ImportRowReply> = {}): ImportRowReply => ({
  key,
  kind: 'lamp',
  state: 'changed',
  subject: `10${key} Lamp`,
  fields: [{ field: 'name', was: 'Old', is: `New ${key}` }],
  differs: [],
  ...over,
});
const ready = (over: Partial<Extract<ImportReply, { state: 'ready' }>> = {}): ImportReply => ({
  ...{
    id: 'a',
    name: 'rig.mvr',
    state: 'ready',
    form: 'mvr',
    notes: [],
    unknown: [],
    brings: [],
    fields: [],
    known: '',
  },
  rows: [
    row('1'),
    row('2', { fields: [{ field: 'address', was: '1/1', is: 'no address' }] }),
    row('3', { state: 'gone' }),
  ],
  ...over,
});
/** Each file has an id of its own, as the server gives it: what was written once is never asked for again. */
let files = 0;
let path = '';
const arrives = (reply: ImportReply) => {
  files += 1;
  path = `/api/import/a${files}`;
  return open(<ArrivalPage />, {
    records,
    params: { arrival: `a${files}` },
    says: { [path]: reply, [`${path}/write`]: { seq: 9, sentence: 'Imported rig.mvr', changes: 1 } },
  });
};
const sentence = () => screen.getByRole('heading', { level: 1 }).textContent;
const written = () => asked.find((one) => one.path === `${path}/write`)!.body as { keys: string[]; fields: string[] };

test('the counts stand first and lead to their rows; what is gone stays unless a person says otherwise', async () => {
  await arrives(ready());
  expect(sentence()).toBe('rig.mvr: 2 differ, 1 gone.');
  expect(screen.getByText('address 1/1 → no address')).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'Show 1 gone' }));
  expect(screen.getByRole('checkbox', { name: '103 Lamp' }).getAttribute('aria-checked')).toBe('false');
  fireEvent.click(screen.getByRole('button', { name: 'Import 2 rows' }));
  await settled();
  expect(written()).toMatchObject({ keys: ['1', '2'], fields: [] });
});

test('a whole show stands in place of the one that is there: what it lacks goes with the rest', async () => {
  const record = { kind: 'record' as const };
  await arrives(ready({ form: 'show', rows: [row('1', record), row('2', { ...record, state: 'gone' })] }));
  fireEvent.click(screen.getByRole('button', { name: 'Import 2 rows' }));
  await settled();
  expect(written().keys).toEqual(['1', '2']);
});

test('a kind of change is left for all rows at once, and rows that have it are found', async () => {
  await arrives(
    ready({
      rows: Array.from({ length: 12 }, (_, i) =>
        row(String(i), i < 3 ? { fields: [{ field: 'address', was: '1/1', is: '2/1' }] } : {}),
      ),
    }),
  );
  fireEvent.change(screen.getByLabelText('Kind of change'), { target: { value: 'address' } });
  expect(screen.getAllByRole('checkbox')).toHaveLength(3);
  fireEvent.click(screen.getByRole('button', { name: 'Leave out all 3' }));
  fireEvent.click(screen.getByRole('button', { name: /^Leave some fields/ }));
  fireEvent.click(screen.getByRole('checkbox', { name: 'Import name, 9' }));
  fireEvent.click(screen.getByRole('button', { name: 'Import 9 rows' }));
  await settled();
  expect(written().fields).toEqual(['name']);
  expect(written().keys).toHaveLength(9);
});

test('what was left out of an earlier version is left out again, and that is said', async () => {
  await arrives(ready({ known: '2026-11-20T10:00:00Z', fields: ['name'], rows: [row('1', { left: true }), row('2')] }));
  expect(screen.getByText(/^An earlier version was imported on/)).toBeTruthy();
  expect(screen.getByRole('checkbox', { name: '101 Lamp' }).getAttribute('aria-checked')).toBe('false');
  expect(screen.getByRole('button', { name: 'Import 1 row' })).toBeTruthy();
});

test('a type that the file does not hold is asked: alike ones first, and its modes', async () => {
  const unknown = {
    key: 'Elsewhere Thing',
    name: 'Thing',
    modes: ['Basic'],
    lamps: 4,
    typeId: '',
    modeFor: {},
    settled: false,
    like: ['type-spot-16'],
  };
  await arrives(ready({ unknown: [unknown] }));
  const group = within(screen.getByRole('group', { name: 'Thing' }));
  const options = group.getAllByRole('option').map(({ textContent }) => textContent);
  expect(options.slice(0, 2)).toEqual(['Not known yet; its lamps wait', 'Baleen Spot 16 (alike)']);
  answers.set(
    path,
    ready({ unknown: [{ ...unknown, typeId: 'type-spot-16', modeFor: { Basic: 'Basic' }, settled: true }] }),
  );
  fireEvent.change(group.getByLabelText('Type of Thing'), { target: { value: 'type-spot-16' } });
  await settled();
  expect(asked.at(-1)).toMatchObject({
    method: 'PATCH',
    body: { types: [{ key: 'Elsewhere Thing', typeId: 'type-spot-16', modes: [{ said: 'Basic', mode: 'Basic' }] }] },
  });
  expect(screen.getByText('Types, as they were said')).toBeTruthy();
});

test('faults, cells that cannot be read and notes can all be opened', async () => {
  const lines = (word: string) => Array.from({ length: 7 }, (_, i) => `${word} ${i}.`);
  await arrives(ready({ brings: lines('Fault'), notes: lines('Note') }));
  expect(screen.queryByText('Fault 6.')).toBeNull();
  fireEvent.click(screen.getByRole('button', { name: /^5 more: 7 faults/ }));
  expect(screen.getByText('Fault 6.')).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: /^4 more: 7 notes/ }));
  expect(screen.getByText('Note 6.')).toBeTruthy();
});

test('what cannot be read says why, and what the server refuses is said', async () => {
  await arrives({ id: 'a', name: 'rig.mvr', state: 'refused', why: 'The file is empty.' });
  expect(sentence()).toBe('rig.mvr cannot be imported.');
  expect(screen.getByText('The file is empty.')).toBeTruthy();
});

test('a refusal while writing is said, and the choice stays', async () => {
  await arrives(ready());
  answers.set(`${path}/write`, refusal(409, 'Somebody else changed this.'));
  fireEvent.click(screen.getByRole('button', { name: 'Import 2 rows' }));
  await settled();
  expect(screen.getByText('Somebody else changed this.')).toBeTruthy();
  expect(screen.getByRole('button', { name: 'Import 2 rows' })).toBeTruthy();
});
