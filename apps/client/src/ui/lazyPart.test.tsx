import { act, render, screen } from '@testing-library/react';
import { Text } from 'react-native';
import { lazyPart } from './lazyPart';

beforeEach(() => jest.useFakeTimers());
afterEach(() => jest.useRealTimers());
const pass = (ms: number) => act(() => jest.advanceTimersByTimeAsync(ms));

test('a part that comes late is said to be on its way; one that does not come is asked for again', async () => {
  let comes: (() => void) | undefined;
  let asked = 0;
  const Part = lazyPart(async () => {
    asked += 1;
    if (asked === 1) throw new Error('The server does not answer.');
    await new Promise<void>((come) => (comes = come));
    return () => <Text>All lamps</Text>;
  });
  render(<Part />);
  await pass(500);
  // What comes at once needs no words.
  expect(screen.queryByText(/being fetched/)).toBeNull();
  await pass(600);
  expect(screen.getByText('This is being fetched…')).toBeTruthy();
  expect(asked).toBe(2);
  await pass(8000);
  expect(screen.getByRole('button', { name: 'Load the page anew' })).toBeTruthy();
  await act(async () => comes!());
  await pass(0);
  expect(screen.getByText('All lamps')).toBeTruthy();
  expect(screen.queryByRole('button')).toBeNull();
});
