import { decodePoll, decodePollReply, encodePoll, portsOf } from '@taxiarch/core/protocol/artnet';
import { Polling } from './polling';

const ON_CHANGE = 0x02;

function polling(settings: { poll: boolean; list: number[] }) {
  const sent: [string, number[]][] = [];
  const part = new Polling({
    wanted: () => settings.poll,
    asks: () => ({ flags: 0, diagnosticsPriority: 0 }),
    artnet: () => ({
      name: 'eth0',
      address: '10.0.0.1',
      netmask: '255.0.0.0',
      mac: '02:00:00:00:00:01',
      loopback: false,
      medium: 'wired',
      up: true,
    }),
    send(bytes, to) {
      const reply = decodePollReply(bytes);
      sent.push([to, reply.ok ? portsOf(reply.value).map(({ portAddress }) => portAddress) : []]);
    },
    toAskForIp: () => [],
    toList: () => ({ wanted: settings.list, most: 64 }),
    hears: () => false,
  });
  const asked = (address: string, now: number, flags = 0) => {
    const poll = decodePoll(encodePoll({ flags }));
    if (poll.ok) part.answer(poll.value, address, now);
    return sent.splice(0);
  };
  const changed = (list: number[], now: number) => {
    settings.list = list;
    part.changed(now);
    return sent.splice(0);
  };
  return { settings, asked, changed };
}

test('whoever asked to be told of changes is told them, for as long as it goes on polling', () => {
  const { asked, changed } = polling({ poll: true, list: [1] });
  expect(asked('10.0.0.2', 0, ON_CHANGE)).toEqual([['10.0.0.2', [1]]]);
  expect(asked('10.0.0.3', 0)).toEqual([['10.0.0.3', [1]]]);
  expect(changed([1, 2], 9_000)).toEqual([['10.0.0.2', [1, 2]]]);
  expect(changed([1, 2], 9_100)).toEqual([]);
  expect(changed([3], 10_001)).toEqual([]);
});

test('a list of listeners that is full keeps those that go on polling, and has room when others are silent', () => {
  const { asked, changed } = polling({ poll: true, list: [] });
  const desk = (n: number) => `10.0.1.${n}`;
  for (let n = 0; n < 64; n += 1) asked(desk(n), 0, ON_CHANGE);
  asked(desk(64), 5_000, ON_CHANGE);
  expect(changed([1], 6_000)).toHaveLength(64);
  asked(desk(7), 8_000, ON_CHANGE);
  asked(desk(64), 11_000, ON_CHANGE);
  expect(changed([2], 12_000).map(([to]) => to)).toEqual([desk(7), desk(64)]);
});

test('whoever neither polls nor is listed says nothing; either is enough to answer', () => {
  const { settings, asked } = polling({ poll: false, list: [] });
  expect(asked('10.0.0.2', 0)).toEqual([]);
  settings.list = [5];
  expect(asked('10.0.0.2', 0)).toEqual([['10.0.0.2', [5]]]);
  Object.assign(settings, { poll: true, list: [] });
  expect(asked('10.0.0.2', 0)).toEqual([['10.0.0.2', []]]);
});
