import { fireEvent, screen, within } from '@testing-library/react';
import type { PracticeReply } from '@taxiarch/core/whole/contract';
import { nightFerry } from '@taxiarch/core/whole/demo';
import type { Mark } from '@taxiarch/core/truth/practise';
import { asked, open, refusal, settled } from '@/testing/server';
import { PractisePage } from './PractisePage';

const ferry = nightFerry();
const mark = (over: Partial<Mark> = {}): Mark => ({
  by: 'Ivo',
  at: '2026-11-20T20:00:00.000Z',
  number: 12,
  hard: 'easy',
  count: 2,
  found: 1,
  seconds: 187,
  hints: 1,
  wrong: 0,
  points: 40,
  ...over,
});
const reply = (over: Partial<PracticeReply> = {}): PracticeReply => ({
  cannot: '',
  running: null,
  last: null,
  marks: [],
  causes: [
    { id: 'node-off', title: 'A node has no power' },
    { id: 'third-source', title: 'Somebody sends a universe who is not planned to' },
  ],
  ...over,
});
const running = {
  number: 12,
  hard: 'easy',
  by: 'Ivo',
  began: Date.now() - 65_000,
  count: 2,
  found: [{ says: 'Quay node has no power.', how: 'named', after: 40 }],
  hints: ['Something is noticed at universe 6.'],
  wrong: 1,
} as const;
const page = (practice: PracticeReply, says: Record<string, unknown> = {}) =>
  open(<PractisePage />, { records: ferry, says: { '/api/practice': practice, ...says } });
const sentence = () => screen.getByRole('heading', { level: 1 }).textContent;
const press = async (name: string) => {
  fireEvent.click(screen.getByRole('button', { name }));
  await settled();
};
const choose = (label: string, value: string) => fireEvent.change(screen.getByLabelText(label), { target: { value } });

test('a night is begun as it was chosen, by number', async () => {
  await page(reply(), { '/api/practice/begin': reply({ running }) });
  fireEvent.click(screen.getByRole('radio', { name: 'hard' }));
  fireEvent.change(screen.getByLabelText(/^Number of the night/), { target: { value: '77' } });
  await press('Begin');
  expect(asked).toMatchObject([
    { path: '/api/practice/begin', body: { author: 'Ivo', count: 2, hard: 'hard', number: 77 } },
  ]);
});

test('a number that is none is refused before anything begins', async () => {
  await page(reply());
  fireEvent.change(screen.getByLabelText(/^Number of the night/), { target: { value: '0' } });
  expect(screen.getByRole('alert').textContent).toBe('A whole number from 1 to 9999.');
  expect(screen.getByRole('button', { name: 'Begin' }).getAttribute('aria-disabled')).toBe('true');
});

test('where one cannot practise it says why', async () => {
  await page(reply({ cannot: 'There are no stand-ins: this is a real network, and nothing is planted in one.' }));
  expect(screen.getByText(/There are no stand-ins/)).toBeTruthy();
  expect(screen.getByRole('button', { name: 'Begin' }).getAttribute('aria-disabled')).toBe('true');
});

test('what is wrong is said by place and cause; what was right and what was not is told', async () => {
  let right = false;
  await page(reply({ running }), { '/api/practice/name': () => ({ right, practice: reply({ running }) }) });
  expect(screen.getByText('Something is noticed at universe 6.')).toBeTruthy();
  expect(screen.getByText('Quay node has no power. Named after 0:40.')).toBeTruthy();
  choose('Where', 'machine-boiler');
  choose('What', 'node-off');
  await press('This is it');
  expect(asked[0]!.body).toEqual({ about: { kind: 'machine', id: 'machine-boiler', part: '' }, cause: 'node-off' });
  expect(screen.getByText('That is not what is wrong.')).toBeTruthy();
  right = true;
  choose('Where', 'somebody');
  choose('What', 'third-source');
  await press('This is it');
  expect(asked[1]!.body).toMatchObject({ about: { id: '' }, cause: 'third-source' });
  expect(screen.getByText('That is right.')).toBeTruthy();
});

test('a refused hint is said', async () => {
  await page(reply({ running }), { '/api/practice/hint': refusal(409, 'All hints are given.') });
  await press('Give a hint');
  expect(screen.getByText('All hints are given.')).toBeTruthy();
});

test('at the end: what was wrong, what was found, after how long, and which screens told it; marks by person', async () => {
  const about = { kind: 'universe', id: '40', part: '' } as const;
  const faults = [
    {
      says: 'Quay node has no power.',
      how: 'named',
      after: 40,
      hints: 0,
      about,
      screens: ['How things stand', 'Wire, Quay node'],
    },
    { says: 'Port 4 of Boiler node is off.', how: 'not found', after: null, hints: 1, about, screens: [] },
  ] as const;
  await page(
    reply({
      last: { mark: mark(), faults: [...faults] },
      marks: [mark(), mark({ by: 'Mara', points: 100, at: '2026-11-19T20:00:00.000Z' })],
    }),
  );
  expect(sentence()).toBe('1 of 2 faults found in 3:07: 40 points.');
  const rows = within(screen.getByRole('list', { name: 'What was wrong' })).getAllByRole('listitem');
  expect(rows[0]!.textContent).toMatch(/Named after 0:40.*Looked at: How things stand → Wire, Quay node/);
  expect(rows[1]!.textContent).toMatch(/Not found, 1 hint/);
  expect(screen.getByText('Mara')).toBeTruthy();
});
