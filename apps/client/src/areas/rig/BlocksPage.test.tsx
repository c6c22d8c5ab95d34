import { screen, within } from '@testing-library/react';
import { nightFerry } from '@taxiarch/core/whole/demo';
import { LIBRARY } from '@taxiarch/core/rig/library';
import { PLAIN_LAMP } from '@taxiarch/core/show/records';
import { liveOf, open } from '@/testing/server';
import { BlocksPage } from './BlocksPage';

const type = LIBRARY.find(({ kind }) => kind === 'media')!;
const layer = (number: number, universe: number, channel: number) => ({
  ...PLAIN_LAMP,
  ...{ id: `layer-${number}`, rev: 1, number, name: `Porthole layer ${number}`, universe, channel },
  ...{ typeId: type.id, mode: type.modes[0]!.name },
});

test('the blocks of the show stand in a table, with whether data is received for each', async () => {
  const ferry = nightFerry();
  const records = { ...ferry, type: [...ferry.type, type], lamp: [layer(902, 8, 300), layer(901, 39, 1)] };
  const live = liveOf(records);
  const universes = live.universes.map((one) => (one.show === 39 ? { ...one, streams: [] } : one));
  await open(<BlocksPage />, { records, live: { ...live, universes } });
  const rows = within(screen.getByRole('table', { name: 'Blocks in the show' }))
    .getAllByRole('row')
    .slice(1);
  expect(rows.map((row) => [...row.children].map(({ textContent }) => textContent))).toEqual([
    ['901', 'Porthole layer 901', '39/1', 'none'],
    ['902', 'Porthole layer 902', '8/300', 'received'],
  ]);
});
