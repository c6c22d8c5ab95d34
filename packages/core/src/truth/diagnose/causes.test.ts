/** Causes that show elsewhere than on the path itself: strangers, what is heard by nobody here, lamps that people look at. */
import type { ShowRecords, Subject } from '../../show/records';
import { addSender, plainStream, withNode, withPort, withSender, withStreams, type World } from '../simulate';
import { subject } from './cause';
import { CAUSES } from './causes';
import type { Answer } from '../known';
import { answer, ferry, judged } from './testing/scenes';

/** The demo show, in which the Bridge desk is planned to broadcast. */
const broadcasting: ShowRecords = {
  ...ferry,
  machine: ferry.machine.map((one) =>
    one.id === 'machine-bridge'
      ? {
          ...one,
          sends: one.sends && {
            ...one.sends,
            lines: one.sends.lines.map((line) => ({ ...line, delivery: 'broadcast' as const })),
          },
        }
      : one,
  ),
};
const universe = (number: number): Subject => subject('universe', String(number));
const bridge = 'machine-bridge';
const boiler = 'machine-boiler';
const asIs = (world: World): World => world;
const first = (about: Subject, change: (world: World) => World, answers?: readonly Answer[]): string =>
  judged(about, change, answers && { answers }).suspects[0]?.cause ?? 'none';

const addressOf = (world: World, id: string) => world.nodes.find((one) => one.id === id)!.address;
const wholePage = (world: World) =>
  withNode(world, boiler, ({ ports }) => ({
    ports: ports.map((port) => (port.use === 'out' ? { ...port, wire: port.wire + 16 } : port)),
  }));

const EXAMPLES: readonly (readonly [cause: string, about: Subject, change: (world: World) => World])[] = [
  [
    'third-source',
    universe(6),
    (world) =>
      addSender(world, {
        id: '127.0.0.98',
        name: 'x',
        address: '127.0.0.98',
        streams: [plainStream({ protocol: 'sacn', number: 6 })],
      }),
  ],
  [
    'sends-more',
    universe(7),
    (world) =>
      withSender(world, 'machine-gangway', ({ streams }) => ({
        streams: [...streams, plainStream({ protocol: 'sacn', number: 7 })],
      })),
  ],
  [
    'loop',
    universe(6),
    (world) =>
      addSender(world, {
        id: addressOf(world, 'machine-quay'),
        name: 'Quay node',
        address: addressOf(world, 'machine-quay'),
        streams: [plainStream({ protocol: 'sacn', number: 6 })],
      }),
  ],
  ['page-elsewhere', subject('machine', boiler), wholePage],
  ['unicast-elsewhere', universe(1), (world) => withStreams(world, bridge, () => ({ travels: { to: [] } }))],
  ['deaf-to-one', universe(9), (world) => withNode(world, boiler, () => ({ deafTo: ['127.0.0.21'] }))],
  [
    'here-artnet',
    universe(9),
    (world) => ({ ...world, here: { ...world.here, hears: { sacn: true, artnet: false } } }),
  ],
  ['here-ragged', universe(6), (world) => ({ ...world, here: { ...world.here, ragged: true } })],
  [
    'input-priority',
    subject('machine', 'machine-saloon'),
    (world) => withNode(world, 'machine-saloon', () => ({ priority: 60 })),
  ],
];

test.each(EXAMPLES)('%s is named', (cause, about, change) => {
  const { suspects, together } = judged(about, change);
  const named = [...together, ...suspects.slice(0, 2)].map((one) => one.cause);
  expect(named).toContain(cause);
});

test.each(EXAMPLES)('%s is not named where all is as planned, nor is it where it lies elsewhere', (cause, about) => {
  expect(judged(about, asIs).suspects).toEqual([]);
  // The Quay node without power is none of them.
  const off = (world: World) => withNode(world, 'machine-quay', () => ({ powered: false }));
  expect(judged(subject('machine', 'machine-quay'), off).suspects.slice(0, 2)).not.toContainEqual(
    expect.objectContaining({ cause }),
  );
});

test('broadcast-blocked is named beside what else keeps one sender from a node', () => {
  const blocked = (world: World) => withNode(world, boiler, () => ({ broadcast: false }));
  const named = judged(universe(9), blocked, { records: broadcasting })
    .suspects.slice(0, 2)
    .map(({ cause }) => cause);
  expect(named.sort()).toEqual(['broadcast-blocked', 'deaf-to-one']);
  expect(judged(universe(9), asIs, { records: broadcasting }).suspects).toEqual([]);
});

test('what is sent in another net, where nobody lists it, is known by whether it is broadcast there', () => {
  const listed = ferry.universe.filter(({ protocol }) => protocol === 'artnet').map(({ wire }) => wire);
  const present = { here: { addresses: ['127.0.0.1'], lists: new Set(listed) }, polled: true, own: [] };
  const moved = (travels: 'listed' | 'broadcast') => (world: World) =>
    withStreams(world, bridge, ({ wire }) =>
      wire.protocol === 'artnet' ? { wire: { ...wire, number: wire.number + 256 }, travels } : {},
    );
  const [lead] = judged(universe(9), moved('broadcast'), { present }).suspects;
  expect(lead).toMatchObject({ cause: 'net-differs', leaves: [], contradicted: [] });
});

test('sACN that would lie one beside the plan would be heard: that it is not speaks against another base', () => {
  const elsewhere = (world: World) => withStreams(world, 'machine-gangway', () => ({ travels: { to: [] } }));
  const sends = [answer(subject('machine', 'machine-gangway'), 'sends', 'yes')];
  const { suspects } = judged(universe(40), elsewhere, { answers: sends });
  expect(suspects[0]!.cause).toBe('unicast-elsewhere');
  const bases = suspects.filter(({ cause }) => cause === 'base-differs');
  expect(bases.every(({ contradicted }) => contradicted.length > 0)).toBe(true);
});

describe('a lamp that people looked at', () => {
  const lamp = subject('lamp', 'lamp-101');
  const lit = (says: 'yes' | 'no') => answer(lamp, 'lit', says);
  const right = (says: 'yes' | 'no') => answer(lamp, 'right', says);
  const causes = (...answers: Answer[]) => judged(lamp, asIs, { answers }).suspects.map(({ cause }) => cause);

  test('that lights as it should is suspected of nothing', () => {
    expect(causes(lit('yes'), right('yes'))).toEqual([]);
  });

  test('that does not light is dead, set elsewhere, or hangs on another or no cable; its mode would not keep it dark', () => {
    const named = causes(lit('no'));
    expect([...new Set(named.slice(0, 5))].sort()).toEqual([
      'lamp-address',
      'lamp-dead',
      'lamp-elsewhere',
      'port-cable',
    ]);
    expect(named).not.toContain('lamp-mode');
  });

  test('that lights and does something else is in another mode, or a channel or two off', () => {
    const named = causes(lit('yes'), right('no'));
    expect(named.slice(0, 2).sort()).toEqual(['lamp-mode', 'lamp-shifted']);
  });

  test('a cable that is seen to be plugged in is not what keeps it dark', () => {
    const portsOf = (...answers: Answer[]) =>
      judged(lamp, asIs, { answers })
        .suspects.filter(({ contradicted, cause }) => cause === 'port-cable' && contradicted.length === 0)
        .map(({ deviation: { about } }) => about);
    const [one, ...others] = portsOf(lit('no'));
    expect(others.length).toBeGreaterThan(0);
    expect(portsOf(lit('no'), answer(one!, 'cable', 'yes'))).toEqual(others);
    expect(causes(lit('no'), answer(one!, 'cable', 'no'))[0]).toBe('port-cable');
  });
});

test('a port that is off is not taken for a cable', () => {
  expect(first(universe(6), (world) => withPort(world, boiler, 1, { use: 'off' }))).toBe('port-off');
});

test('every cause has a title of its own', () => {
  expect(new Set(CAUSES.map(({ title }) => title)).size).toBe(CAUSES.length);
});
