import { act, fireEvent, screen } from '@testing-library/react';
import { nightFerry } from '@taxiarch/core/whole/demo';
import type { NodeReport } from '@taxiarch/core/network/node';
import { feed } from '@/data/feed';
import { asked, hold, liveOf, open, settled } from '@/testing/server';
import { RangeTake } from './RangeTake';

const records = nightFerry();
const hot = { hot: true, since: 1, by: 'Ivo', holds: [hold(3, 3, [1, 4])], rate: 44, pictures: [], targets: {} };
const held = liveOf(records, { output: hot });
const type = (text: string) =>
  fireEvent.change(screen.getByLabelText('One slot or a run'), { target: { value: text } });
const press = async (name: string) => {
  fireEvent.click(screen.getByRole('button', { name }));
  await settled();
};

let sent: jest.SpyInstance;
beforeEach(() => (sent = jest.spyOn(feed, 'sendLevels').mockImplementation(() => undefined)));
afterEach(() => {
  jest.useRealTimers();
  sent.mockRestore();
});

test.each([
  ['3/600', /channel/i],
  ['900/1', 'Universe 900 is not in the show.'],
  ['three', /./],
])('%s is refused in a sentence, and cannot be taken', async (text, why) => {
  await open(<RangeTake />, { records });
  type(text);
  expect(screen.getByRole('alert').textContent).toMatch(why);
  expect(screen.getByRole('button', { name: 'Take' }).getAttribute('aria-disabled')).toBe('true');
});

test('a run is taken as it is written, and given back', async () => {
  await open(<RangeTake />, { records, live: liveOf(records, { output: { ...hot, holds: [] } }) });
  type('3/1-4');
  await press('Take');
  expect(asked).toMatchObject([{ path: '/api/output/take', body: { slots: { '3/1-4': null } } }]);
  act(() => {
    feed.hear(held);
  });
  expect(screen.getByText('3/1–4 is taken.')).toBeTruthy();
  await press('Give back');
  expect(asked[1]).toMatchObject({ path: '/api/output/give-back', body: { slots: ['3/1-4'] } });
});

test('all of it goes to one level', async () => {
  await open(<RangeTake />, { records, live: held });
  type('3/1-4');
  fireEvent.change(screen.getByRole('slider', { name: 'Level of all 4' }), { target: { value: '128' } });
  expect(sent).toHaveBeenLastCalledWith(
    3,
    [0, 1, 2, 3].map((slot) => [slot, 128]),
  );
});

test('stepping lights one slot and darkens the others, and goes round', async () => {
  await open(<RangeTake />, { records, live: held });
  type('3/1-4');
  await press('Next slot');
  expect(sent).toHaveBeenLastCalledWith(
    3,
    [0, 1, 2, 3].map((slot) => [slot, slot === 1 ? 255 : 0]),
  );
  await press('Slot before');
  await press('Slot before');
  expect(sent).toHaveBeenLastCalledWith(
    3,
    [0, 1, 2, 3].map((slot) => [slot, slot === 3 ? 255 : 0]),
  );
});

test('stepping by itself goes on at its speed until it is by hand again', async () => {
  await open(<RangeTake />, { records, live: held });
  type('3/1-4');
  jest.useFakeTimers();
  fireEvent.click(screen.getByRole('radio', { name: '¼ s' }));
  act(() => void jest.advanceTimersByTime(760));
  expect(sent).toHaveBeenCalledTimes(3);
  fireEvent.click(screen.getByRole('radio', { name: 'By hand' }));
  act(() => void jest.advanceTimersByTime(1000));
  expect(sent).toHaveBeenCalledTimes(3);
});

test('what lies at the slot is named; nothing, where there is nothing', async () => {
  await open(<RangeTake />, { records });
  type('2/1');
  expect(screen.getByText('101 Port spot 1')).toBeTruthy();
  type('2/500');
  expect(screen.getByText('No lamp is patched here.')).toBeTruthy();
});

test('what was taken is confirmed by what the ports say, and not by more than that', async () => {
  const port = (number: number, over: object) => ({
    number,
    direction: 'out',
    sacn: true,
    portAddress: 3,
    disabled: false,
    ltp: false,
    active: true,
    merging: false,
    ...over,
  });
  const node = (over: object) =>
    ({
      address: '127.0.0.33',
      mac: '02:7f:f2:00:00:33',
      shortName: 'Car deck node',
      longName: '',
      gone: false,
      alsoHere: [],
      alsoAt: [],
      ports: [port(2, over)],
      firstSeen: 0,
      lastSeen: 99_000,
    }) as unknown as NodeReport;
  const says = async (nodes: NodeReport[]) => {
    await open(<RangeTake />, { records, live: { ...held, nodes } });
    type('3/1-4');
    return screen.getByRole('list', { name: 'What the ports say' }).textContent;
  };
  expect(await says([node({})])).toContain('Car deck node, port 2 says that it sends this, and does not merge.');
  expect(await says([node({ merging: true })])).toContain('Car deck node, port 2: it says that it sends, merging');
  expect(await says([node({ portAddress: 9 })])).toContain('Car deck node, port 2: is set to sACN 9');
  expect(await says([])).toMatch(/Car deck node, port 2: does not answernot known/);
});
