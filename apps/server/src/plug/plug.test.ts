/** An adapter as it is kept: what it reaches is told, and what it cannot is said. */
import { SharedLevels } from '../bridge/shared';
import { until } from '../testing/until';
import type { LineEvents, LinePort } from './linePort';
import { Plug } from './plug';
import type { PlugOrder } from './plugMessages';

const order: PlugOrder = {
  ...{ machineId: 'plug', name: 'Chart plug', use: 'out', place: { kind: 'serial', serial: 'A12' }, rate: 40 },
  ...{ slots: 24, row: null, loss: { kind: 'hold', after: 0, over: 0 }, start: 'black', by: 'Mara', since: 1 },
};

/** A port that is busy with each frame for `ms`. */
function begin(given: PlugOrder, ms: number) {
  let sent = 0;
  let events: LineEvents | undefined;
  let free = true;
  const line: LinePort = {
    path: '/dev/plug',
    tellsBreaks: false,
    get free() {
      return free;
    },
    send: () => {
      sent += 1;
      free = ms === 0;
      if (!free) setTimeout(() => (free = true), ms);
    },
    close: () => undefined,
  };
  const got: Uint8Array[] = [];
  const plug = new Plug(given, {
    levels: new SharedLevels(),
    open: (_order, its) => {
      events = its;
      return Promise.resolve(line);
    },
    frame: (_id, slots) => got.push(slots),
  });
  return { plug, got, sent: () => sent, events: () => events! };
}

test('a port that cannot keep the rate says what it reaches', async () => {
  const { plug } = begin(order, 60);
  await until(() => plug.report().why !== '');
  expect(plug.report().why).toMatch(/^The port reaches \d+\.\d of 40 frames a second\.$/);
  expect(plug.report().rate).toBeLessThan(20);
  plug.end();
});

test('before anybody sent it waits or sends zeros, as planned', async () => {
  const { plug, sent } = begin({ ...order, start: 'wait' }, 0);
  await until(() => plug.report().silent);
  expect([sent(), plug.report().why]).toEqual([0, '']);
  expect(plug.follow(order)).toBe(true);
  await until(() => sent() > 0);
  plug.end();
});

test('one that is gone is opened again by itself; what ended is not', async () => {
  const { plug, events, sent } = begin(order, 0);
  await until(() => sent() > 0);
  events().gone('The adapter at /dev/plug was unplugged.');
  expect(plug.report()).toMatchObject({ state: 'gone', why: 'The adapter at /dev/plug was unplugged.', rate: 0 });
  await until(() => plug.report().state === 'runs');
  expect(plug.report()).toMatchObject({ back: 1, why: '' });
  plug.end();
  const last = sent();
  events().gone('late');
  await until(() => true);
  expect([plug.report().state, sent()]).toEqual(['runs', last]);
});

test('on a port that tells of no breaks frames are told apart by pauses; only start code 0 is levels', async () => {
  const { plug, got, events } = begin({ ...order, use: 'in' }, 0);
  await until(() => plug.report().state === 'runs');
  const pause = () => new Promise((go) => setTimeout(go, 10));
  for (const bytes of [
    [0, 0, 5, 6],
    [0, 0xcc, 1, 2],
    [0, 0, 7, 8],
    [0, 0],
  ]) {
    events().came(Uint8Array.from(bytes));
    await pause();
  }
  expect(got.map((slots) => [...slots])).toEqual([
    [5, 6],
    [7, 8],
  ]);
  plug.end();
});
