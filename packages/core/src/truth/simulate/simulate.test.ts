/** The world that the plan describes, and what of it would be heard, said and seen when something in it is otherwise. */
import { wireKey } from '../../base/address';
import { sightingKey } from '../known';
import type { Subject } from '../../show/records';
import {
  addSender,
  observe,
  plainStream,
  portKey,
  portOfKey,
  reachesHere,
  reachesNode,
  sentBy,
  withLamp,
  withNode,
  withPort,
  withSender,
  withStreams,
  withVisualiser,
  type World,
  type WorldNode,
  type WorldPort,
  type WorldSender,
} from '.';

const port = (number: number, over: Partial<WorldPort> = {}): WorldPort => ({
  ...{ number, use: 'out', protocol: 'sacn', wire: number, merge: 'htp', start: 'wait', fixed: 0, look: [] },
  ...{ loss: { kind: 'hold', after: 0, over: 0 }, disabled: false, cable: true },
  ...over,
});
const node = (over: Partial<WorldNode> = {}): WorldNode => ({
  ...{ id: 'node', name: 'Node', address: '10.0.0.31', prefix: 8, powered: true, plugged: true, tells: true },
  ...{ firmware: '1.9', failSafe: 'hold', priority: 120, doubled: false, multicast: true, broadcast: true, deafTo: [] },
  model: { sources: 2, priorityFirst: true },
  ports: [port(1), port(2, { protocol: 'artnet', wire: 5 })],
  ...over,
});
const sender = (over: Partial<WorldSender> = {}): WorldSender => ({
  ...{ id: 'desk', name: 'Desk', address: '10.0.0.21', cid: 'desk', on: true, through: null },
  streams: [plainStream({ protocol: 'sacn', number: 1 }), plainStream({ protocol: 'artnet', number: 5 })],
  ...over,
});
const lamp = {
  ...{ id: 'lamp', universe: 1, patched: 10, set: 10, footprint: 4, fits: true, works: true },
  ...{ asked: true, deaf: false, elsewhere: false, ports: [{ nodeId: 'node', port: 1 }] },
};
const visualiser = {
  ...{ id: 'vis', name: 'Vis', address: '10.0.0.40', on: true, early: false, multicast: true },
  listens: [
    { protocol: 'artnet' as const, number: 5 },
    { protocol: 'artnet' as const, number: 6 },
    { protocol: 'sacn' as const, number: 1 },
  ],
};
const world: World = {
  ...{ senders: [sender()], nodes: [node()], visualisers: [visualiser], lamps: [lamp] },
  here: { addresses: ['10.0.0.1'], hears: { sacn: true, artnet: true }, lists: null, ragged: false },
};
const levels = (at: World, number: number) => observe(at).ports.get(portKey('node', number))!.levels?.[9] ?? null;
const answers = (at: World, about: Subject, question: string) =>
  observe(at).answers.get(sightingKey(about, question))?.answer;
const lampSays = (at: World) => [
  answers(at, { kind: 'lamp', id: 'lamp', part: '' }, 'lit'),
  answers(at, { kind: 'lamp', id: 'lamp', part: '' }, 'right'),
];

describe('what is sent', () => {
  test('what is on, of a sender that is on', () => {
    expect(sentBy(world, sender())).toHaveLength(2);
    expect(sentBy(world, sender({ on: false }))).toEqual([]);
    const off = withStreams(world, 'desk', ({ wire }) => ({ on: wire.number === 5 })).senders[0]!;
    expect(sentBy(world, off).map(({ wire }) => wire.number)).toEqual([5]);
  });

  test('a desk on a cable sends what the input passes on: with the input’s priority, number and way', () => {
    const input = (over: Partial<WorldPort>, box: Partial<WorldNode> = {}) => {
      const there = { ...world, nodes: [node({ ports: [port(3, { use: 'in', wire: 40, ...over })], ...box })] };
      return sentBy(there, sender({ through: { nodeId: 'node', port: 3 } }));
    };
    expect(input({})[0]).toMatchObject({ priority: 120, wire: { protocol: 'sacn', number: 40 }, travels: 'multicast' });
    expect(input({ protocol: 'artnet' })[0]).toMatchObject({ wire: { protocol: 'artnet' }, travels: 'broadcast' });
    expect([
      input({ use: 'out' }),
      input({ disabled: true }),
      input({}, { powered: false }),
      input({}, { plugged: false }),
    ]).toEqual([[], [], [], []]);
    expect(sentBy(world, sender({ through: { nodeId: 'node', port: 9 } }))).toEqual([]);
    expect(sentBy(world, sender({ through: { nodeId: 'none', port: 1 } }))).toEqual([]);
  });
});

describe('to whom it comes', () => {
  const sacn = plainStream({ protocol: 'sacn', number: 1 });
  const artnet = plainStream({ protocol: 'artnet', number: 5 });
  const here = (over: Partial<World['here']>, stream = sacn) =>
    reachesHere({ ...world, here: { ...world.here, ...over } }, stream);

  test('this computer: by what it hears, what it lists, and to whom it is sent', () => {
    expect([here({}), here({ hears: { sacn: false, artnet: true } })]).toEqual([true, false]);
    expect([here({}, artnet), here({ lists: new Set([5]) }, artnet), here({ lists: new Set([6]) }, artnet)]).toEqual([
      true,
      true,
      false,
    ]);
    const to = (address: string) => here({}, { ...sacn, travels: { to: [address] } });
    expect([to('10.0.0.1'), to('10.0.0.31')]).toEqual([true, false]);
    expect(here({}, { ...artnet, travels: 'broadcast' })).toBe(true);
  });

  const reaches = (stream: typeof sacn, over: Partial<WorldNode> = {}, from: Partial<WorldSender> = {}) =>
    reachesNode(sender(from), stream, node(over));

  test('a node that is there, and not deaf to the sender', () => {
    expect([reaches(sacn), reaches(sacn, { powered: false }), reaches(sacn, { plugged: false })]).toEqual([
      true,
      false,
      false,
    ]);
    expect([reaches(sacn, { deafTo: ['10.0.0.21'] }), reaches(sacn, { deafTo: ['10.0.0.9'] })]).toEqual([false, true]);
  });

  test('multicast whatever the masks say; the rest only within one network', () => {
    const apart = { address: '192.168.1.31', prefix: 24 };
    expect([reaches(sacn, apart), reaches(sacn, { multicast: false })]).toEqual([true, false]);
    expect([reaches(artnet), reaches(artnet, apart), reaches(artnet, { address: '' })]).toEqual([true, false, true]);
    expect(reaches(artnet, apart, { address: '' })).toBe(true);
    const broadcast = { ...artnet, travels: 'broadcast' as const };
    expect([reaches(broadcast), reaches(broadcast, { broadcast: false }), reaches(broadcast, apart)]).toEqual([
      true,
      false,
      false,
    ]);
    const to = (address: string) => reaches({ ...artnet, travels: { to: [address] } });
    expect([to('10.0.0.31'), to('10.0.0.32')]).toEqual([true, false]);
  });
});

describe('what is observed', () => {
  test('as planned: both universes leave, the node says so, the lamp lights', () => {
    expect([levels(world, 1), levels(world, 2)]).toEqual([255, 255]);
    const { nodes, streams, visualisers, lamps } = observe(world);
    expect(nodes).toMatchObject([
      {
        id: 'node',
        firmware: '1.9',
        ports: [
          { number: 1, active: true, merging: false },
          { number: 2, active: true },
        ],
      },
    ]);
    expect(streams.map(({ sender: from, pace, levels: has, waits, twin }) => [from, pace, has, waits, twin])).toEqual([
      ['desk', 'even', true, false, false],
      ['desk', 'even', true, false, false],
    ]);
    // Of Art-Net no priority is heard.
    expect(streams.map(({ priority }) => priority)).toEqual([100, 0]);
    expect(visualisers).toEqual([
      {
        id: 'vis',
        address: '10.0.0.40',
        lists: [5, 6].map((number) => wireKey({ protocol: 'artnet', number })),
        gets: [wireKey({ protocol: 'artnet', number: 5 })],
      },
    ]);
    expect(lamps).toEqual([{ id: 'lamp', on: 'planned', set: 'planned', mode: 'planned' }]);
    expect(lampSays(world)).toEqual(['yes', 'yes']);
  });

  test('another number, protocol or use of the port, another start code, a stream that is off: nothing leaves', () => {
    expect(levels(withPort(world, 'node', 1, { wire: 9 }), 1)).toBeNull();
    expect(levels(withPort(world, 'node', 1, { protocol: 'artnet' }), 1)).toBeNull();
    expect(levels(withPort(world, 'node', 1, { use: 'off' }), 1)).toBeNull();
    expect(
      levels(
        withStreams(world, 'desk', () => ({ startCode: 0x17 })),
        1,
      ),
    ).toBeNull();
    expect(
      levels(
        withStreams(world, 'desk', () => ({ startCode: 0x17 })),
        2,
      ),
    ).toBeNull();
    expect(
      levels(
        withSender(world, 'desk', () => ({ on: false })),
        1,
      ),
    ).toBeNull();
    expect(observe(withStreams(world, 'desk', () => ({ startCode: 0x17 }))).streams[0]!.levels).toBe(false);
  });

  test('levels that wait for a packet are told as such; short packets leave what they have', () => {
    const waits = withStreams(world, 'desk', () => ({ syncAddress: 7 }));
    expect(observe(waits).streams[0]!.waits).toBe(true);
    const short = observe(withStreams(world, 'desk', () => ({ slots: 9 })));
    const out = short.ports.get(portKey('node', 1))!.levels!;
    expect([out[8], out[9] ?? 0, short.streams[0]!.slots]).toEqual([255, 0, 9]);
  });

  test('two senders of one universe merge, and say that they do; of one CID they are twins', () => {
    const more = addSender(world, {
      id: '10.0.0.99',
      name: 'Stranger',
      address: '10.0.0.99',
      streams: [plainStream({ protocol: 'sacn', number: 1 })],
    });
    expect(observe(more).nodes[0]!.ports.map(({ merging }) => merging)).toEqual([true, false]);
    expect(observe(more).streams.map(({ twin }) => twin)).toEqual([false, false, false]);
    const twins = withSender(more, '10.0.0.99', () => ({ cid: 'desk' }));
    expect(
      observe(twins).streams.map(({ key, twin }) => [key === wireKey({ protocol: 'sacn', number: 1 }), twin]),
    ).toEqual([
      [true, true],
      [false, false],
      [true, true],
    ]);
  });

  test('the pace of a stream, and of a link that loses packets', () => {
    const pace = (at: World) => observe(at).streams[0]!.pace;
    expect([
      pace(withStreams(world, 'desk', () => ({ slow: true }))),
      pace(withStreams(world, 'desk', () => ({ ragged: true, slow: true }))),
    ]).toEqual(['slow', 'ragged']);
    expect(pace({ ...world, here: { ...world.here, ragged: true } })).toBe('ragged');
  });

  test('a node that is away or silent says nothing; without Art-Net nobody does', () => {
    const says = (at: World) => observe(at).nodes.length;
    expect([
      says(withNode(world, 'node', () => ({ plugged: false }))),
      says(withNode(world, 'node', () => ({ tells: false }))),
    ]).toEqual([0, 0]);
    const deaf = { ...world, here: { ...world.here, hears: { sacn: true, artnet: false } } };
    expect([says(deaf), observe(deaf).visualisers, observe(deaf).streams.length]).toEqual([0, [], 1]);
  });

  test('how a node says its ports: a fixed output is one, an input is fed or off', () => {
    const ports = [
      port(1, { use: 'fixed', fixed: 40 }),
      port(2, { use: 'in', disabled: true }),
      port(3, { use: 'in', wire: 30 }),
      port(4, { merge: 'ltp' }),
    ];
    const purser = sender({
      id: 'purser',
      through: { nodeId: 'node', port: 3 },
      streams: [plainStream({ protocol: 'sacn', number: 30 })],
    });
    const said = observe({ ...world, nodes: [node({ ports })], senders: [purser] }).nodes[0]!.ports;
    expect(said.map(({ use, active, merge }) => [use, active, merge])).toEqual([
      ['out', true, 'htp'],
      ['off', false, 'htp'],
      ['in', true, 'htp'],
      ['out', false, 'ltp'],
    ]);
  });

  test('a visualiser that is off says nothing; one that began too early gets nothing', () => {
    expect(observe(withVisualiser(world, 'vis', () => ({ on: false }))).visualisers).toEqual([]);
    expect(observe(withVisualiser(world, 'vis', () => ({ early: true }))).visualisers[0]!.gets).toEqual([]);
  });
});

describe('what a lamp answers and shows', () => {
  const says = (over: Partial<typeof lamp>, at = world) => observe(withLamp(at, 'lamp', over)).lamps;

  test('it says how it is set; where it hangs on another cable it says so from there', () => {
    expect(says({ set: 12, fits: false })).toEqual([{ id: 'lamp', on: 'planned', set: 'another', mode: 'another' }]);
    expect(says({ elsewhere: true, ports: [] })).toEqual([
      { id: 'lamp', on: 'another', set: 'planned', mode: 'planned' },
    ]);
  });

  test('it says nothing that was not asked, is deaf or broken, or hangs on nothing that is there', () => {
    expect([says({ asked: false }), says({ deaf: true }), says({ works: false }), says({ ports: [] })]).toEqual([
      [],
      [],
      [],
      [],
    ]);
    expect(says({}, withPort(world, 'node', 1, { cable: false }))).toEqual([]);
    expect(
      says(
        {},
        withNode(world, 'node', () => ({ powered: false })),
      ),
    ).toEqual([]);
  });

  const shows = (over: Partial<typeof lamp>) => lampSays(withLamp(world, 'lamp', over));

  test('it lights where any of its slots is fed; as it should only at its own address and in its own mode', () => {
    expect([shows({ set: 13 }), shows({ set: 14 }), shows({ set: 6 }), shows({ set: 7 })]).toEqual([
      ['yes', 'no'],
      ['no', 'no'],
      ['no', 'no'],
      ['yes', 'no'],
    ]);
    expect([shows({ fits: false }), shows({ works: false }), shows({ ports: [] })]).toEqual([
      ['yes', 'no'],
      ['no', 'no'],
      ['no', 'no'],
    ]);
    expect(lampSays(withPort(world, 'node', 1, { cable: false }))).toEqual(['no', 'no']);
    // Of packets that end before it nothing comes to it; of those that end within it, something does.
    expect([9, 10].map((slots) => lampSays(withStreams(world, 'desk', () => ({ slots })))[0])).toEqual(['no', 'yes']);
  });
});

test('what is seen at machines: power, link, the lights of ports, and whether they send', () => {
  const seen = (at: World, kind: 'machine' | 'port', id: string, question: string, part = '') =>
    answers(at, { kind, id, part }, question);
  const dark = withNode(world, 'node', () => ({ powered: false }));
  const loose = withNode(world, 'node', () => ({ plugged: false }));
  expect([
    seen(world, 'machine', 'node', 'on'),
    seen(world, 'machine', 'node', 'link'),
    seen(dark, 'machine', 'node', 'on'),
    seen(dark, 'machine', 'node', 'link'),
    seen(loose, 'machine', 'node', 'on'),
    seen(loose, 'machine', 'node', 'link'),
  ]).toEqual(['yes', 'yes', 'no', 'no', 'yes', 'no']);
  expect([
    seen(world, 'port', 'node', 'light', '1'),
    seen(withPort(world, 'node', 1, { wire: 9 }), 'port', 'node', 'light', '1'),
    seen(dark, 'port', 'node', 'light', '1'),
  ]).toEqual(['yes', 'no', 'no']);
  expect(seen(withPort(world, 'node', 1, { cable: false }), 'port', 'node', 'cable', '1')).toBe('no');
  expect([
    seen(world, 'machine', 'desk', 'sends'),
    seen(
      withStreams(world, 'desk', () => ({ on: false })),
      'machine',
      'desk',
      'sends',
    ),
  ]).toEqual(['yes', 'no']);
  expect(
    seen(
      withVisualiser(world, 'vis', () => ({ on: false })),
      'machine',
      'vis',
      'on',
    ),
  ).toBe('no');
});

test('a port is known by its node and number', () => {
  expect(portOfKey(portKey('machine with spaces', 12))).toEqual({ nodeId: 'machine with spaces', port: 12 });
});
