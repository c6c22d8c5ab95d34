/** A type of which only the name is known: said what it is, its lamps are of that type in one edit. */
import { fireEvent, screen } from '@testing-library/react';
import { nightFerry } from '@taxiarch/core/whole/demo';
import { PLAIN_TYPE, type FixtureType, type ShowRecords } from '@taxiarch/core/show/records';
import { open, proposed, settled } from '@/testing/server';
import { TypePage } from './TypePage';
import { TypesPage } from './TypesPage';

const ferry = nightFerry();
const unknown: FixtureType = {
  ...PLAIN_TYPE,
  ...{ id: 'lost', rev: 1, maker: 'Unknown maker', name: 'Dory', kind: 'other', unknown: true },
  modes: [{ name: 'Wide', channels: [] }],
};
const records: ShowRecords = {
  ...ferry,
  type: [...ferry.type, unknown],
  lamp: ferry.lamp.map((lamp) =>
    lamp.number === 101 || lamp.number === 102 ? { ...lamp, typeId: 'lost', mode: 'Wide' } : lamp,
  ),
};

test('it leads from the list of types, and stands apart from those that are known', async () => {
  await open(<TypesPage />, { records });
  expect(screen.getByRole('heading', { level: 1 }).textContent).toMatch(`${ferry.type.length} types in the show`);
  expect(screen.getByText(/^Dory: 2 lamps wait/)).toBeTruthy();
});

test('its mode is asked where no name is the same, and nothing is written before', async () => {
  await open(<TypePage />, { records, params: { type: 'lost' } });
  expect(screen.getByRole('heading', { level: 1 }).textContent).toBe('2 lamps wait for the type “Dory”.');
  fireEvent.change(screen.getByLabelText('It is'), { target: { value: 'type-spot-16' } });
  expect(screen.getByText('Say which mode of Baleen Spot 16 “Wide” is.')).toBeTruthy();
  fireEvent.change(screen.getByLabelText('Mode “Wide” is'), { target: { value: 'Extended' } });
  fireEvent.click(screen.getByRole('button', { name: /^Give 2 lamps this type/ }));
  await settled();
  const changes = proposed();
  expect(changes.filter(({ kind }) => kind === 'lamp').map(({ after }) => after)).toMatchObject([
    { number: 101, typeId: 'type-spot-16', mode: 'Extended', channel: 1 },
    { number: 102, typeId: 'type-spot-16', mode: 'Extended', channel: 24 },
  ]);
  expect(changes.find(({ kind, id }) => kind === 'type' && id === 'lost')?.after).toBeNull();
});
