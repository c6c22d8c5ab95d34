/** A server that could not answer for a while is asked again soon, however often it could not. */
import { act, render, screen } from '@testing-library/react';
import useSWR, { SWRConfig } from 'swr';
import { SWR_CONFIG } from './swr';

test('after many refusals in a row the next question is no more than five seconds away', async () => {
  jest.useFakeTimers();
  let refusals = 8;
  const ask = jest.fn(() => {
    refusals -= 1;
    return refusals < 0 ? Promise.resolve('there') : Promise.reject(new Error('not yet'));
  });
  const Asks = () => useSWR<string, Error>('/api/thing', ask).data ?? 'nothing';
  await act(() => {
    render(
      <SWRConfig value={SWR_CONFIG}>
        <Asks />
      </SWRConfig>,
    );
  });
  const after = (ms: number) => act(() => jest.advanceTimersByTimeAsync(ms));
  await after(10_000);
  expect(ask.mock.calls.length).toBe(5);
  for (let i = 0; i < 4; i += 1) await after(5000);
  expect(screen.getByText('there')).toBeTruthy();
  jest.useRealTimers();
});
