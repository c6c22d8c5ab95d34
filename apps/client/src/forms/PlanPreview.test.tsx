import { refuse } from '@taxiarch/core/base/result';
import { fireEvent, screen, within } from '@testing-library/react';
import { nightFerry } from '@taxiarch/core/whole/demo';
import { changed, type Plan, removed } from '@taxiarch/core/show/edit';
import { answers, asked, open, refusal, settled } from '@/testing/server';
import { PlanPreview } from './PlanPreview';

const records = nightFerry();
const lamp = records.lamp.find(({ number }) => number === 101)!;
const moved: Plan = {
  sentence: 'Moved lamp 101',
  changes: [changed('lamp', lamp, { ...lamp, channel: 40 })],
  lines: [{ subject: '101 Port spot 1', before: '2/1', after: '2/40' }],
};
const preview = () => within(screen.getByRole('region', { name: 'Preview' }));

test('a plan that is refused says why and offers no act', async () => {
  await open(<PlanPreview plan={refuse('nothing', 'Nothing would change.')} act="Move" />, { records });
  expect(screen.getByText('Nothing would change.')).toBeTruthy();
  expect(screen.queryByRole('button')).toBeNull();
});

test('every line stands there before anything is written, and what it would bring about', async () => {
  await open(<PlanPreview plan={{ ok: true, value: moved }} act="Move" />, { records });
  for (const text of ['101 Port spot 1', '2/1', '2/40']) expect(preview().getByText(text)).toBeTruthy();
  // 40 lies within lamp 102.
  expect(preview().getByText('Lamp 102 and lamp 101 overlap from 2/40.')).toBeTruthy();
  expect(asked).toEqual([]);
});

test('pressed, it is proposed as one edit at the revision that was read', async () => {
  const onDone = jest.fn();
  await open(<PlanPreview plan={{ ok: true, value: moved }} act="Move" onDone={onDone} />, { records });
  fireEvent.click(preview().getByRole('button', { name: 'Move' }));
  await settled();
  expect(asked).toMatchObject([
    {
      path: '/api/edits',
      body: { sentence: 'Moved lamp 101', changes: [{ kind: 'lamp', id: lamp.id, rev: lamp.rev }] },
    },
  ]);
  expect(onDone).toHaveBeenCalled();
});

test('what the server refuses is said, and the plan stays to be tried again', async () => {
  const onDone = jest.fn();
  await open(<PlanPreview plan={{ ok: true, value: moved }} act="Move" onDone={onDone} />, { records });
  answers.set('/api/edits', refusal(409, 'Stella changed lamp 101 in the meantime.'));
  fireEvent.click(preview().getByRole('button', { name: 'Move' }));
  await settled();
  expect(screen.getByText('Stella changed lamp 101 in the meantime.')).toBeTruthy();
  expect(onDone).not.toHaveBeenCalled();
  expect(preview().getByRole('button', { name: 'Move' }).getAttribute('aria-disabled')).not.toBe('true');
});

test('a button that takes something away says how many go', async () => {
  const gone: Plan = {
    sentence: 'Took lamp 101 out',
    changes: [removed('lamp', lamp)],
    lines: [{ subject: '101 Port spot 1', before: '2/1', after: '' }],
  };
  await open(<PlanPreview plan={{ ok: true, value: gone }} act="Take out" />, { records });
  expect(preview().getByRole('button', { name: 'Take out; 1 goes' })).toBeTruthy();
});

test('of very many lines the first stand there, and the rest are counted', async () => {
  const lines = Array.from({ length: 100 }, (_, i) => ({ subject: `Line ${i}`, before: '', after: 'x' }));
  await open(<PlanPreview plan={{ ok: true, value: { ...moved, lines } }} act="Move" />, { records });
  expect(preview().getByText('Line 59')).toBeTruthy();
  expect(preview().queryByText('Line 60')).toBeNull();
  expect(preview().getByText('and 40 more.')).toBeTruthy();
});

test('who has gone somewhere else while it was written is not led away from there; it is written all the same', async () => {
  const [onDone, onWritten] = [jest.fn(), jest.fn()];
  await open(<PlanPreview plan={{ ok: true, value: moved }} act="Move" onDone={onDone} onWritten={onWritten} />, {
    records,
  });
  fireEvent.click(preview().getByRole('button', { name: 'Move' }));
  window.history.pushState(null, '', '/flow');
  await settled();
  window.history.back();
  expect(onWritten).toHaveBeenCalled();
  expect(onDone).not.toHaveBeenCalled();
});
