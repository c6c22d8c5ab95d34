import { fireEvent, screen, waitFor } from '@testing-library/react';
import { nightFerry } from '@taxiarch/core/whole/demo';
import { rigOf } from '@taxiarch/core/rig/patch';
import type { OutputReport } from '@taxiarch/core/whole/contract';
import type { UniverseFrame } from '@taxiarch/core/whole/contract/feed';
import { feed } from '@/data/feed';
import { answers, asked, hold, liveOf, open, refusal, settled, tell } from '@/testing/server';
import { LampWalk } from './LampWalk';

const records = nightFerry();
const { patch } = rigOf(records);
const spots = ['lamp-101', 'lamp-102', 'lamp-103'].map((id) => patch.lamp(id)!);
const hot = (...holds: OutputReport['holds'][number][]): OutputReport => ({
  hot: true,
  since: 40_000,
  by: 'Ivo',
  holds,
  rate: 44,
  pictures: [],
  targets: {},
});
const press = async (name: string) => {
  fireEvent.click(screen.getByRole('button', { name }));
  await settled();
};
const walk = (lamps = spots, output?: OutputReport) =>
  open(<LampWalk lamps={lamps} onChoose={() => undefined} />, {
    records,
    live: liveOf(records, output && { output }),
  });

let sent: jest.SpyInstance;
beforeEach(() => (sent = jest.spyOn(feed, 'sendLevels').mockImplementation(() => undefined)));
afterEach(() => sent.mockRestore());

test('while safe nothing is sent before the person agrees; then it is made hot and taken', async () => {
  await walk();
  await press('Take');
  expect(asked).toEqual([]);
  expect(screen.getByText(/Look that nobody is in their way/)).toBeTruthy();
  await press('Make hot and take');
  expect(asked.map(({ path }) => path)).toEqual(['/api/output/hot', '/api/output/take']);
  const { slots } = asked[1]!.body as { slots: Record<string, number> };
  expect(Object.keys(slots)).toHaveLength(23);
  // Taken as it is received: taking moves no light.
  expect(new Set(Object.values(slots))).toEqual(new Set([null]));
});

test('left safe, nothing was asked of anybody', async () => {
  await walk();
  await press('Take');
  await press('Leave safe');
  expect(asked).toEqual([]);
  expect(screen.queryByText(/Look that nobody/)).toBeNull();
});

test('what is refused is said', async () => {
  await walk(spots, hot());
  answers.set('/api/output/take', refusal(409, 'Stella has taken 2/1.'));
  await press('Take');
  expect(screen.getByText('Stella has taken 2/1.')).toBeTruthy();
});

test('sliders stand still until the lamp is taken, and then send coarse and fine', async () => {
  await walk();
  const intensity = () => screen.getByRole<HTMLInputElement>('slider', { name: 'Intensity' });
  expect(intensity().disabled).toBe(true);
  tell(liveOf(records, { output: hot(hold(2, 2, [1, 23])) }));
  expect(intensity().disabled).toBe(false);
  fireEvent.change(intensity(), { target: { value: String(0x8040) } });
  const levels = new Map(sent.mock.calls.flatMap(([, pairs]) => pairs as [number, number][]));
  expect([levels.get(5), levels.get(6)]).toEqual([0x80, 0x40]);
  expect(sent.mock.calls.every(([key]) => key === 2)).toBe(true);
});

test('highlight opens the lamp and lights it', async () => {
  await walk(spots, hot(hold(2, 2, [1, 23])));
  await press('Highlight');
  const levels = new Map(sent.mock.calls.flatMap(([, pairs]) => pairs as [number, number][]));
  expect([levels.get(5), levels.get(6)]).toEqual([255, 255]);
});

test('the next lamp is taken at the intensity of the one before, open, before that is given back', async () => {
  // Shutter shut and all colours out, as a console at rest leaves them.
  const frame = { values: new Uint8Array(512), owners: new Uint8Array(512) } as UniverseFrame;
  const heard = jest.spyOn(feed, 'watch').mockImplementation((_, listener) => {
    listener(frame);
    return () => undefined;
  });
  await walk(spots, hot(hold(2, 2, [1, 23])));
  fireEvent.change(screen.getByRole('slider', { name: 'Intensity' }), { target: { value: '65535' } });
  await press('Next lamp');
  await waitFor(() => expect(asked.map(({ path }) => path)).toEqual(['/api/output/take', '/api/output/give-back']));
  heard.mockRestore();
  expect(screen.getByText('Lamp 2 of 3')).toBeTruthy();
  const { slots } = asked[0]!.body as { slots: Record<string, number> };
  // Lamp 102 begins at 2/24; its intensity is the sixth and seventh slot, its shutter the eighth.
  const { mode } = spots[1]!;
  const shutter = mode.channels.find(({ attribute }) => attribute.startsWith('Shutter'))!;
  expect([slots['2/29'], slots['2/30'], slots['2/6']]).toEqual([255, 255, undefined]);
  expect(slots[`2/${23 + shutter.offsets[0]!}`]).toBe(shutter.highlight);
});

test('at both ends there is no further step', async () => {
  await walk(spots.slice(0, 1));
  for (const name of ['Lamp before', 'Next lamp'])
    expect(screen.getByRole('button', { name }).getAttribute('aria-disabled')).toBe('true');
});

test('a run of pixels is lit pixel by pixel, the others dark', async () => {
  const run = patch.lamp('run-802')!;
  await walk([run], hot(hold(13, 0x1000c, [217, 306])));
  await press('One pixel on');
  expect(screen.getByText('pixel 1 of 30')).toBeTruthy();
  sent.mockClear();
  await press('One pixel on');
  const levels = new Map(sent.mock.calls.flatMap(([, pairs]) => pairs as [number, number][]));
  // Three slots a pixel from 13/217 on: the second is lit, the first and third are dark.
  expect([216, 217, 218].map((slot) => levels.get(slot))).toEqual([0, 0, 0]);
  expect([219, 220, 221].map((slot) => levels.get(slot))).toEqual([255, 255, 255]);
  expect([222, 223, 224].map((slot) => levels.get(slot))).toEqual([0, 0, 0]);
});

test('a lamp on a universe that the show lacks says so', async () => {
  const lost = rigOf({ ...records, universe: records.universe.filter(({ number }) => number !== 2) });
  await open(<LampWalk lamps={[lost.patch.lamp('lamp-101')!]} onChoose={() => undefined} />, { records: lost.records });
  expect(screen.getByText('Universe 2 is not in the show, so this lamp cannot be taken.')).toBeTruthy();
});
