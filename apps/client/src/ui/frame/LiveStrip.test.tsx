import { fireEvent, screen } from '@testing-library/react';
import { nightFerry } from '@taxiarch/core/whole/demo';
import { asked, connection, hold, liveOf, open, tell } from '@/testing/server';
import { LiveStrip } from './LiveStrip';

const records = nightFerry();
const strip = () => screen.getByRole('status', { name: 'Live strip' });
const hot = { hot: true, since: 40_000, by: 'Ivo', holds: [], rate: 0, pictures: [], targets: {} };

test('while safe it says what is heard', async () => {
  await open(<LiveStrip />, { records });
  expect(strip().textContent).toBe('Safe46 streams heard, 1400 packets a second');
});

test('what keeps Taxiarch from listening is said instead', async () => {
  const trouble = 'The interface 10.0.0.5 is gone.';
  await open(<LiveStrip />, { records, live: liveOf(records, { trouble }) });
  expect(strip().textContent).toContain(trouble);
});

test('while hot it says what is sent and where to, and all can be given back', async () => {
  const holds = [hold(2, 2, [1, 23]), hold(9, 0x10008, [5, 5], [9, 9])];
  await open(<LiveStrip />, { records, live: liveOf(records, { output: { ...hot, holds } }) });
  expect(strip().textContent).toMatch(/^hot25 slots to 2\/1–23, 9\/5 … since/);
  fireEvent.click(screen.getByRole('button', { name: 'Give back all' }));
  expect(asked).toEqual([{ method: 'POST', path: '/api/output/give-back', body: {} }]);
});

test('hot with nothing taken, it can be made safe', async () => {
  await open(<LiveStrip />, { records, live: liveOf(records, { output: hot }) });
  expect(strip().textContent).toContain('nothing taken');
  fireEvent.click(screen.getByRole('button', { name: 'Make safe' }));
  expect(asked[0]).toMatchObject({ path: '/api/output/hot', body: { hot: false } });
});

test('routes that run are said', async () => {
  await open(<LiveStrip />, { records });
  const route = {
    id: 'r',
    row: 0,
    running: true,
    since: 1,
    by: '',
    inputs: [],
    parts: [],
    current: -1,
    rate: 44,
    to: [],
  };
  tell(liveOf(records, { output: hot, routes: [route, { ...route, id: 's', running: false }] }));
  expect(strip().textContent).toContain('1 route running, 44 packets a second');
});

test('a server that is gone is said, and when it is back, so is that', async () => {
  await open(<LiveStrip />, { records });
  connection(false);
  expect(strip().textContent).toContain('The server does not answer. Trying again…');
  connection(true);
  expect(strip().textContent).toContain('Safe');
});
