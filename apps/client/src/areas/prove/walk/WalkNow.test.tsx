/** Walking on the phone: one tap each, by keys, back, and by itself while the server is away. */
import 'fake-indexeddb/auto';
import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import type { GivenMark, StepReply, StepRequest } from '@taxiarch/core/whole/contract';
import { nightFerry } from '@taxiarch/core/whole/demo';
import type { Walk } from '@taxiarch/core/show/records';
import { walkKeys } from '@/data/preferences';
import { answers, asked, liveOf, open, settled } from '@/testing/server';
import { WalkNow } from './WalkNow';
import { readKeys, withKey } from './useHandsFree';

const records = nightFerry();
const walk: Walk = {
  ...{ id: 'w', rev: 1, name: 'Spots', by: 'Ivo', at: '2026-11-26T18:00:00Z', order: 'number', unit: 'lamp' },
  ...{ covers: { kind: 'chosen', id: '', part: '' }, pictures: ['full'] },
  lampIds: ['lamp-101', 'lamp-102', 'lamp-103'],
};

/** A server that gives lamps in their order; `away`: it does not answer. */
function serve() {
  const state = { away: false, kept: [] as GivenMark[] };
  const gone = () => {
    throw new TypeError('Failed to fetch');
  };
  answers.set('/api/walks/w/step', ({ want, from, this: wanted, done }: StepRequest): StepReply => {
    if (state.away) gone();
    const next = walk.lampIds.find((id) => !done.includes(id)) ?? '';
    const at = want === 'this' ? wanted : want === 'stay' ? from : next;
    return { at, lighting: 'off', trouble: '', left: 0, others: [], states: [] };
  });
  answers.set('/api/walks/w/marks', ({ marks }: { marks: GivenMark[] }) => {
    if (state.away) gone();
    state.kept.push(...marks);
    return { stored: marks.length, known: 0 };
  });
  return state;
}
const begin = async () => {
  await open(<></>, { records: { ...records, walk: [walk] }, live: liveOf(records) });
  const state = serve();
  const onStop = jest.fn();
  render(<WalkNow walk={walk} first="" onStop={onStop} />);
  await inHand('101');
  return { state, onStop };
};
const inHand = (number: string) =>
  waitFor(() => expect(screen.getByLabelText('Number of the lamp in hand').textContent).toBe(number));
const press = async (name: string | RegExp) => {
  fireEvent.click(screen.getByRole('button', { name }));
  await settled();
};
const kept = (state: ReturnType<typeof serve>, ...wanted: string[]) =>
  waitFor(() =>
    expect(state.kept.map(({ lampId, result, why }) => `${lampId} ${result} ${why}`.trim())).toEqual(wanted),
  );

test('proved, and failed by one tap more; why it failed may be asked while one walks on', async () => {
  const { state } = await begin();
  await press('Proved');
  await inHand('102');
  await press('Failed');
  fireEvent.change(screen.getByLabelText('Note'), { target: { value: 'socket' } });
  await press('Wrong colour');
  await inHand('103');
  await kept(state, 'lamp-101 proved', 'lamp-102 failed wrong colour');
  expect(state.kept[1]).toMatchObject({ note: 'socket', by: expect.any(String) as string });
  expect(screen.getByRole('button', { name: /^Why\? Port spot 2/ })).toBeTruthy();
});

test('back corrects: the last word counts, and both are kept', async () => {
  const { state } = await begin();
  await press('Proved');
  await inHand('102');
  await press('Back');
  await inHand('101');
  await press('Skip');
  await kept(state, 'lamp-101 proved', 'lamp-101 skipped');
});

test('by keys; another key is learnt, and does one thing only', async () => {
  const { state } = await begin();
  fireEvent.keyDown(window, { key: 'PageDown' });
  await inHand('102');
  await kept(state, 'lamp-101 proved');
  // What is typed into a field is nobody’s answer.
  await press('Failed');
  fireEvent.keyDown(screen.getByLabelText('Note'), { key: 'PageDown' });
  expect(state.kept).toHaveLength(1);
  expect(withKey('proved=PageDown;failed=PageUp', 'failed', 'PageDown')).toBe('failed=PageDown');
  expect(readKeys(walkKeys.read())).toMatchObject({ proved: 'PageDown', failed: 'PageUp' });
});

test('while the server is away it goes on by itself; what is marked goes out when it is back', async () => {
  const { state } = await begin();
  state.away = true;
  await press('Proved');
  await inHand('102');
  await press('Proved');
  await inHand('103');
  expect(await screen.findByText(/^2 marks wait on this phone/, {}, { timeout: 10_000 })).toBeTruthy();
  expect(screen.getByText(/The server is away/)).toBeTruthy();
  state.away = false;
  await press('Proved');
  await kept(state, 'lamp-101 proved', 'lamp-102 proved', 'lamp-103 proved');
  await waitFor(() => expect(screen.queryByText(/wait on this phone/)).toBeNull());
  expect(screen.getByText('Everything is marked.')).toBeTruthy();
});

test('stopped by a tap; when the page goes the server is told, so that what was lit is given back', async () => {
  const { onStop } = await begin();
  await press('Stop walking');
  expect(onStop).toHaveBeenCalled();
  expect(asked.some(({ path }) => path === '/api/walks/w/leave')).toBe(false);
  cleanup();
  await waitFor(() => expect(asked.some(({ path }) => path === '/api/walks/w/leave')).toBe(true));
});
