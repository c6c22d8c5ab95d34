import { screen } from '@testing-library/react';
import type { UniverseReport } from '@taxiarch/core/signal/stream';
import { nightFerry } from '@taxiarch/core/whole/demo';
import { liveOf, open, stream } from '@/testing/server';
import { UniverseList } from './UniverseList';

const records = nightFerry();
const live = liveOf(records);
const sentence = () => screen.getByRole('heading', { level: 1 }).textContent;
const list = (universes: readonly UniverseReport[], params = {}) =>
  open(<UniverseList />, { records, path: '/listen', live: { ...live, universes }, params });
/** The row of a universe, by its name. */
const row = (name: string) => screen.getByText(name).closest('a')!;
const standing = (show: number, over: Partial<UniverseReport>) =>
  live.universes.map((one) => (one.show === show ? { ...one, ...over } : one));
const stray: UniverseReport = {
  key: 77,
  protocol: 'sacn',
  number: 77,
  show: null,
  name: '',
  state: 'stray',
  because: '',
  streams: [stream({ name: 'Somebody', address: '127.0.0.99' })],
};

test('all is well', async () => {
  await list(live.universes);
  expect(sentence()).toBe('40 of 40 universes steady on the wire.');
  expect(row('1 Foredeck and wheelhouse').textContent).toContain('sACN 1 · 40/s');
});

test('what is not well is counted word by word, and strays are not counted as planned', async () => {
  await list([...standing(3, { state: 'silent', streams: [], because: 'nobody sends it' }), stray]);
  expect(sentence()).toBe('39 of 40 universes steady on the wire. 1 silent, 1 stray.');
  expect(row('3 Starboard spots').textContent).toContain('nobody sends it');
});

test('each number leads to those that it counts', async () => {
  await list([...standing(3, { state: 'silent' }), stray]);
  const links = screen.getAllByRole('link').slice(0, 4);
  expect(links.map((link) => link.getAttribute('href'))).toEqual([
    '/listen?state=steady',
    '/listen?state=all',
    '/listen?state=silent',
    '/listen?state=stray',
  ]);
});

test('held to a state, only those are listed; none says so', async () => {
  await list([...live.universes, stray], { state: 'stray' });
  expect(row('sACN 77')).toBeTruthy();
  expect(screen.queryByText('1 Foredeck and wheelhouse')).toBeNull();
  await list(live.universes, { state: 'contested' });
  expect(screen.getByText(/^No universe is contested now\./)).toBeTruthy();
});

test('a stream that is lost flies its flag no more', async () => {
  await list(standing(1, { streams: [stream({ name: 'Bridge desk', lost: true })] }));
  expect(row('1 Foredeck and wheelhouse').textContent).not.toContain('/s');
});

test('nothing planned and nothing heard is said, with the first thing to look at', async () => {
  await list([]);
  expect(sentence()).toBe('Nothing is planned, and nothing is heard.');
  expect(screen.getByText(/look at which interface is in use/)).toBeTruthy();
});
