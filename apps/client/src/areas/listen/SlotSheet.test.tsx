import { act, fireEvent, screen } from '@testing-library/react';
import type { ContendersFrame, UniverseFrame } from '@taxiarch/core/whole/contract';
import { nightFerry } from '@taxiarch/core/whole/demo';
import { pennantOf, sendersOf } from '@taxiarch/core/network/flow';
import { feed } from '@/data/feed';
import { asked, hold, liveOf, open, settled } from '@/testing/server';
import { SlotSheet } from './SlotSheet';
import { findUniverse, reportOf } from '@/data/universes';
import type { Unit } from './units';

const records = nightFerry();
const live = liveOf(records);

/** Levels that the feed brings as soon as a universe is looked at. */
function levels(values: Readonly<Record<number, number>>, owner: number): void {
  const frame: UniverseFrame = {
    kind: 'universe',
    key: 0,
    version: 2,
    values: new Uint8Array(512),
    owners: new Uint8Array(512).fill(owner),
  };
  for (const [slot, value] of Object.entries(values)) frame.values[Number(slot)] = value;
  jest.spyOn(feed, 'watch').mockImplementation((key, watcher) => {
    watcher({ ...frame, key });
    return () => undefined;
  });
}
afterEach(() => jest.restoreAllMocks());

async function sheet(token: string, slot: number, more: { unit?: Unit; onStep?: (slot: number) => void } = {}) {
  const universe = findUniverse(token, records)!;
  const report = reportOf(live, universe.key);
  const pennants = new Map(report?.streams.map((one) => [one.mark, pennantOf(one, sendersOf(records.machine))]));
  await open(
    <SlotSheet
      universe={universe}
      report={report}
      slot={slot}
      unit={more.unit ?? 'dmx'}
      pennants={pennants}
      onStep={more.onStep ?? (() => undefined)}
      onClose={() => undefined}
    />,
    { records, live },
  );
  await act(() => new Promise((done) => setTimeout(done, 150)));
  return universe;
}
const shows = (text: string | RegExp) => expect(screen.getByText(text)).toBeTruthy();

test('which lamp and attribute it is, coarse or fine, and both together', async () => {
  levels({ 0: 0x12, 1: 0x34 }, 0);
  await sheet('u2', 1);
  expect(screen.getByTestId('slot-value').textContent).toBe(String(0x34));
  shows('2/2');
  shows('101 Port spot 1');
  shows('Pan, fine');
  shows(/coarse and fine together 4660/);
});

test('who owns it, with the flag of that sender', async () => {
  levels({ 39: 148 }, 0);
  await sheet('u7', 39);
  shows('Bridge desk');
  expect(screen.getByLabelText('Pennant B')).toBeTruthy();
});

test('why: every other that would have it, with level and priority', async () => {
  levels({ 39: 148 }, 0);
  const { key } = await sheet('u7', 39);
  const frame: ContendersFrame = {
    kind: 'contenders',
    key,
    slot: 39,
    contenders: [
      { mark: 0, value: 148, priority: 100, age: 200 },
      { mark: 1, value: 255, priority: 90, age: null },
    ],
  };
  act(() => feed.contenders.emit(frame));
  shows(/Bridge desk wins with priority 100, above Stern desk with 90/);
  shows('255 at 90');
  // What is told of another slot is none of this sheet's.
  act(() => feed.contenders.emit({ ...frame, slot: 40, contenders: [] }));
  shows('255 at 90');
});

test('levels are written as the person wants them', async () => {
  levels({ 0: 255 }, 0);
  await sheet('u1', 0, { unit: 'hex' });
  expect(screen.getByTestId('slot-value').textContent).toBe('FF');
});

test('a slot without a lamp, and that nobody owns, says so', async () => {
  levels({}, 0xff);
  await sheet('u2', 500);
  shows('No lamp is patched here.');
  shows('Nobody owns this slot now.');
});

test('of a universe that the show does not know nothing is taken', async () => {
  levels({}, 0xff);
  await sheet('sacn-777', 3);
  shows('This universe is not in the show.');
  expect(screen.queryByRole('button', { name: /^Take/ })).toBeNull();
});

test('it steps along, and stops at both ends', async () => {
  levels({}, 0xff);
  const onStep = jest.fn();
  await sheet('u2', 0, { onStep });
  fireEvent.click(screen.getByRole('button', { name: 'Slot before' }));
  fireEvent.click(screen.getByRole('button', { name: 'Slot after' }));
  expect(onStep.mock.calls).toEqual([[1]]);
});

test('taken at the level that it has, it is set by number and given back', async () => {
  levels({ 9: 77 }, 0);
  const send = jest.spyOn(feed, 'sendLevels').mockImplementation(() => undefined);
  const output = { hot: true, since: 1, by: 'Ivo', holds: [], rate: 0, pictures: [], targets: {} };
  Object.assign(live, { output });
  await sheet('u1', 9);
  fireEvent.click(screen.getByRole('button', { name: 'Take 1/10' }));
  await settled();
  expect(asked).toMatchObject([{ path: '/api/output/take', body: { slots: { '1/10': null } } }]);
  const held = { ...live, output: { ...output, holds: [hold(1, 1, [10, 10])] } };
  act(() => {
    feed.hear(held);
  });
  fireEvent.change(screen.getByRole('slider', { name: 'Level of 1/10' }), { target: { value: '200' } });
  expect(send).toHaveBeenCalledWith(1, [[9, 200]]);
  fireEvent.click(screen.getByRole('button', { name: 'Give back' }));
  await settled();
  expect(asked[1]).toMatchObject({ path: '/api/output/give-back', body: { slots: ['1/10'] } });
});
