import { fireEvent, screen, within } from '@testing-library/react';
import type { RouteReport } from '@taxiarch/core/signal/route';
import { nightFerry } from '@taxiarch/core/whole/demo';
import { PLAIN_INPUT, PLAIN_ROUTE, type Route, type ShowRecords } from '@taxiarch/core/show/records';
import { asked, liveOf, open, proposed, settled } from '@/testing/server';
import { RoutePage } from './RoutePage';
import { RoutesPage } from './RoutesPage';

const ferry = nightFerry();
const wire = (number: number) => ({ protocol: 'sacn' as const, number });
const route: Route = {
  ...PLAIN_ROUTE,
  id: 'over',
  rev: 4,
  name: 'Foredeck again',
  order: 1,
  inputs: [
    { ...PLAIN_INPUT, wire: wire(1) },
    { ...PLAIN_INPUT, wire: wire(3) },
  ],
  merge: 'backup',
  returns: 'by hand',
  out: wire(101),
};
const report = (over: Partial<RouteReport> = {}): RouteReport => ({
  id: 'over',
  row: 0,
  running: true,
  since: 1,
  by: 'Ivo',
  inputs: [true, true],
  parts: [],
  current: 0,
  rate: 44,
  to: ['239.255.0.101'],
  ...over,
});
const hot = { hot: true, since: 1, by: '', holds: [], rate: 0, pictures: [], targets: {} };
const page = (over: Partial<Route> = {}, now: RouteReport | undefined = report(), output = hot) => {
  const records: ShowRecords = { ...ferry, route: [{ ...route, ...over }] };
  const live = liveOf(records, { routes: now ? [now] : [], output });
  return open(<RoutePage />, { records, live, params: { route: 'over' } });
};
const sentence = () => screen.getByRole('heading', { level: 1 }).textContent;
const press = async (name: string) => {
  fireEvent.click(screen.getByRole('button', { name }));
  await settled();
};

test.each([
  [report(), 'Foredeck again is running: 44 packets a second to 239.255.0.101.'],
  [report({ running: false }), 'Foredeck again is off.'],
  [report({ inputs: [false, false] }), 'Foredeck again is running; nothing comes in.'],
  [report({ to: [] }), 'Foredeck again is running: 44 packets a second to nobody who listens.'],
])('how it stands is a sentence', async (now, says) => {
  await page({}, now);
  expect(sentence()).toBe(says);
});

test('while safe, running it asks first; a person makes hot, and it runs', async () => {
  await page({}, report({ running: false }), { ...hot, hot: false });
  await press('Run');
  expect(asked).toEqual([]);
  await press('Make hot and run');
  await settled();
  expect(asked.map(({ path, body }) => [path, (body as { on?: boolean }).on])).toEqual([
    ['/api/output/hot', undefined],
    ['/api/routes/run', true],
  ]);
});

test('a backup that stands in although the first is back is told, and gives back by hand', async () => {
  await page({}, report({ current: 1 }));
  expect(screen.getByText(/is heard again; .* still stands in for it/)).toBeTruthy();
  await press('Give back to the first');
  expect(asked).toMatchObject([{ path: '/api/routes/give-back', body: { id: 'over' } }]);
});

test('an input that is not heard is said beside its flag', async () => {
  await page({}, report({ inputs: [true, false] }));
  expect(screen.getByText(/through from 3 Starboard spots, not heard/)).toBeTruthy();
});

test('the list switches each route, and all of them off', async () => {
  const records: ShowRecords = { ...ferry, route: [route, { ...route, id: 'under', name: 'Under', order: 2 }] };
  const live = liveOf(records, { routes: [report(), report({ id: 'under', row: 1, running: false })], output: hot });
  await open(<RoutesPage />, { records, live });
  expect(sentence()).toBe('1 of 2 routes running.');
  await press('Run Under');
  await press('All off');
  expect(asked.map(({ body }) => body)).toMatchObject([
    { ids: ['under'], on: true },
    { ids: ['over'], on: false },
  ]);
});

test('a new route says what it lacks, and is planned with all that was said', async () => {
  await open(<RoutePage />, { records: ferry, params: { route: 'new' } });
  const preview = () => screen.queryByRole('region', { name: 'Preview' });
  expect(preview()).toBeNull();
  const type = (label: string, value: string) => fireEvent.change(screen.getByLabelText(label), { target: { value } });
  type('Name', 'Bow');
  type('Universe', '1');
  type('To universe', 'sACN 150');
  fireEvent.click(within(preview()!).getByRole('button'));
  await settled();
  expect(proposed()[0]).toMatchObject({
    kind: 'route',
    after: { inputs: [{ wire: { protocol: 'sacn', number: 1 } }], out: { protocol: 'sacn', number: 150 } },
  });
});
