/** A type of the show is never shown as the library has it, not even before the show has come. */
import { act, render, screen } from '@testing-library/react';
import { mutate } from 'swr';
import { nightFerry } from '@taxiarch/core/whole/demo';
import { LIBRARY } from '@taxiarch/core/rig/library';
import { open } from '@/testing/server';
import { TypePage } from './TypePage';

const ferry = nightFerry();

test('a type of which the library has another of the same id waits for the show', async () => {
  const [own] = ferry.type.filter(({ id }) => LIBRARY.some((one) => one.id === id));
  const renamed = { ...own!, name: 'Sea Fret as rebuilt' };
  const type = ferry.type.map((one) => (one.id === own!.id ? renamed : one));
  const records = { ...ferry, type };
  await open(<></>, { records, params: { type: own!.id } });
  await act(() => mutate('/api/show', undefined, { revalidate: false }));
  render(<TypePage />);
  expect(screen.queryByRole('heading', { level: 1 })).toBeNull();
  await act(() => mutate('/api/show', { seq: 1, records }, { revalidate: false }));
  expect(screen.getByRole('heading', { level: 1 }).textContent).toContain('Sea Fret as rebuilt');
});
