import { act, fireEvent, screen } from '@testing-library/react';
import { nightFerry } from '@taxiarch/core/whole/demo';
import { rigSelection } from '@/data/selection';
import { placeFilter } from '@/data/preferences';
import { routed } from '@/testing/router';
import { open } from '@/testing/server';
import { LampList } from './LampList';

const records = nightFerry();
const search = (text: string) => fireEvent.change(screen.getByLabelText('Search lamps'), { target: { value: text } });
const heads = () => screen.queryAllByRole('heading', { level: 2 }).map(({ textContent }) => textContent);
const list = (over = records) => open(<LampList />, { records: over, path: '/rig' });
afterEach(() =>
  act(() => {
    rigSelection.set([]);
    placeFilter.write('');
  }),
);

test('the sentence says how much there is and whether it collides', async () => {
  await list();
  expect(screen.getByRole('heading', { level: 1 }).textContent).toBe(
    '420 lamps and 2956 pixels on 39 universes. No addresses collide.',
  );
  const clash = records.lamp.map((one) => (one.id === 'lamp-102' ? { ...one, channel: 11 } : one));
  await list({ ...records, lamp: clash });
  expect(screen.getByRole('heading', { level: 1 }).textContent).toMatch(/\d+ faults? to mend\.$/);
});

test.each([
  ['port spot 2', ['Port spot 2']],
  ['2/24', ['Port spot 2']],
  ['spot 16 baleen 101', ['Port spot 1']],
])('“%s” finds it', async (text, found) => {
  await list();
  search(text);
  for (const name of found) expect(screen.getByText(name)).toBeTruthy();
});

test('what fits nothing is said', async () => {
  await list();
  search('zzz');
  expect(screen.getByText('No lamp fits “zzz”.')).toBeTruthy();
});

test('by place, and held to one place; opened again it is as it was left', async () => {
  await list();
  expect(heads()[0]).toBe('Universe 1, Foredeck and wheelhouse');
  fireEvent.click(screen.getByRole('radio', { name: 'By place' }));
  expect(heads()[0]).toBe('Wheelhouse');
  act(() => placeFilter.write(records.place.find(({ name }) => name === 'Funnel')!.id));
  await list();
  expect(heads()).toEqual(['Funnel']);
});

test('lamps are chosen in the order in which they are tapped, and changed together', async () => {
  await list();
  fireEvent.click(screen.getByRole('button', { name: 'Choose lamps' }));
  const lamp = (name: string) => screen.getByRole('checkbox', { name });
  for (const name of ['Lamp 3 Wheelhouse lantern 3', 'Lamp 1 Wheelhouse lantern 1']) fireEvent.click(lamp(name));
  expect(rigSelection.read()).toEqual(['lamp-3', 'lamp-1']);
  expect(lamp('Lamp 3 Wheelhouse lantern 3').getAttribute('aria-checked')).toBe('true');
  fireEvent.click(screen.getByRole('button', { name: 'Change 2' }));
  expect(routed.sent).toEqual(['/rig/change']);
  fireEvent.click(screen.getByRole('button', { name: 'Done' }));
  expect(rigSelection.read()).toEqual([]);
});

test('all that are shown are chosen at once, and no runs of pixels', async () => {
  await list();
  search('funnel');
  fireEvent.click(screen.getByRole('button', { name: 'Choose lamps' }));
  fireEvent.click(screen.getByRole('button', { name: 'All' }));
  expect(rigSelection.read().length).toBeGreaterThan(20);
  expect(rigSelection.read().every((id) => id.startsWith('lamp-'))).toBe(true);
});
