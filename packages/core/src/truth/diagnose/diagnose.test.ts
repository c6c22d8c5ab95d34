import type { ShowRecords, Subject } from '../../show/records';
import { plainStream, withNode, withPort, withSender, withStreams, withVisualiser, type World } from '../simulate';
import { bestQuestion } from './ask';
import { CAUSES } from './causes';
import { subject } from './cause';
import { judge, surenessOf } from './judge';
import { narrow } from './narrow';
import { namesOf } from './scene';
import { PRESENT, answer, ferry, judged, scene, type Given } from './testing/scenes';

const asIs = (world: World): World => world;

const boiler = subject('machine', 'machine-boiler');
const port2 = subject('port', 'machine-boiler', '2');
const six = subject('universe', '6');
const bridge = 'machine-bridge';
const stern = 'machine-stern';

test('where nothing differs nothing is suspected', () => {
  for (const { number } of ferry.universe)
    expect(judged(subject('universe', String(number)), (world) => world)).toMatchObject({ amiss: [], suspects: [] });
  for (const { id } of ferry.machine) expect(judged(subject('machine', id), (world) => world).amiss).toEqual([]);
  for (const { id } of ferry.link) expect(judged(subject('link', id), (world) => world).amiss).toEqual([]);
});

test.each<[string, Subject, (world: World) => World]>([
  ['output-off', six, (world) => withSender(world, bridge, () => ({ on: false }))],
  ['line-off', six, (world) => withStreams(world, bridge, ({ universe }) => (universe === 6 ? { on: false } : {}))],
  [
    'protocol-off',
    subject('universe', '9'),
    (world) => withStreams(world, bridge, ({ wire }) => (wire.protocol === 'artnet' ? { on: false } : {})),
  ],
  ['other-interface', six, (world) => withSender(world, bridge, () => ({ address: '127.0.0.121' }))],
  [
    'base-differs',
    subject('universe', '9'),
    (world) =>
      withStreams(world, bridge, ({ wire }) =>
        wire.protocol === 'artnet' ? { wire: { ...wire, number: wire.number + 1 } } : {},
      ),
  ],
  [
    'net-differs',
    subject('universe', '9'),
    (world) =>
      withStreams(world, bridge, ({ wire }) =>
        wire.protocol === 'artnet' ? { wire: { ...wire, number: wire.number + 256 } } : {},
      ),
  ],
  ['priority-differs', six, (world) => withStreams(world, stern, () => ({ priority: 110 }))],
  ['slow', six, (world) => withStreams(world, bridge, () => ({ slow: true }))],
  ['ragged', six, (world) => withStreams(world, bridge, () => ({ ragged: true }))],
  [
    'sync-nobody',
    six,
    (world) => withStreams(world, bridge, ({ wire }) => (wire.protocol === 'sacn' ? { syncAddress: 7 } : {})),
  ],
  ['start-code', six, (world) => withStreams(world, bridge, () => ({ startCode: 0x55 }))],
  ['controls-nothing', six, (world) => withStreams(world, bridge, () => ({ effect: 'nothing' }))],
  [
    'controls-nothing',
    six,
    (world) => withStreams(world, bridge, ({ universe }) => (universe === 6 ? { effect: 'some' } : {})),
  ],
  ['discarded', six, (world) => withStreams(world, bridge, () => ({ effect: 'discarded' }))],
  ['short-packets', subject('universe', '1'), (world) => withStreams(world, bridge, () => ({ slots: 24 }))],
  ['same-cid', six, (world) => withSender(world, stern, () => ({ cid: bridge }))],
  ['port-elsewhere', port2, (world) => withPort(world, 'machine-boiler', 2, { wire: 30 })],
  ['port-off', port2, (world) => withPort(world, 'machine-boiler', 2, { use: 'off' })],
  ['direction', port2, (world) => withPort(world, 'machine-boiler', 2, { use: 'in' })],
  ['port-protocol', port2, (world) => withPort(world, 'machine-boiler', 2, { protocol: 'sacn' })],
  ['merge-differs', port2, (world) => withPort(world, 'machine-boiler', 2, { merge: 'ltp' })],
  ['node-moved', boiler, (world) => withNode(world, 'machine-boiler', () => ({ address: '127.0.0.132' }))],
  ['mask-differs', boiler, (world) => withNode(world, 'machine-boiler', () => ({ prefix: 24 }))],
  ['address-doubled', boiler, (world) => withNode(world, 'machine-boiler', () => ({ doubled: true }))],
  ['firmware', boiler, (world) => withNode(world, 'machine-boiler', () => ({ firmware: '1.0' }))],
  ['fail-safe', boiler, (world) => withNode(world, 'machine-boiler', () => ({ failSafe: 'full' }))],
  ['multicast-blocked', boiler, (world) => withNode(world, 'machine-boiler', () => ({ multicast: false }))],
  ['input-off', subject('universe', '41'), (world) => withPort(world, 'machine-saloon', 1, { disabled: true })],
  [
    'visualiser-early',
    subject('link', 'link-bridge-artnet'),
    (world) => withVisualiser(world, 'machine-crow', () => ({ early: true })),
  ],
  [
    'visualiser-off',
    subject('link', 'link-bridge-artnet'),
    (world) => withVisualiser(world, 'machine-crow', () => ({ on: false })),
  ],
  [
    'visualiser-interface',
    subject('link', 'link-bridge-artnet'),
    (world) => withVisualiser(world, 'machine-crow', () => ({ address: '127.0.0.124' })),
  ],
  [
    'visualiser-base',
    subject('link', 'link-bridge-artnet'),
    (world) =>
      withVisualiser(world, 'machine-crow', ({ listens }) => ({
        listens: listens.map((wire) => ({ ...wire, number: wire.number + 1 })),
      })),
  ],
  ['here-sacn', six, (world) => ({ ...world, here: { ...world.here, hears: { sacn: false, artnet: true } } })],
  ['here-deaf', six, (world) => ({ ...world, here: { ...world.here, hears: { sacn: false, artnet: false } } })],
])('%s is the first suspect', (cause, about, change) => {
  const { suspects } = judged(about, change);
  expect(suspects[0]).toMatchObject({ cause, leaves: [], contradicted: [] });
});

test('a node that does not answer has no power or no cable: its lights tell which', () => {
  const off = (world: World) => withNode(world, 'machine-boiler', () => ({ powered: false }));
  const { suspects } = judged(boiler, off);
  expect(
    suspects
      .slice(0, 2)
      .map(({ cause }) => cause)
      .sort(),
  ).toEqual(['node-off', 'node-unplugged']);
  // While both fit neither is called certain.
  expect(surenessOf(suspects, [])).not.toBe('certain');
  expect(bestQuestion(suspects, narrow(scene(boiler, off)))).toMatchObject({ about: boiler, question: 'on' });
  const asked = (says: 'yes' | 'no') => {
    const { suspects: all } = judged(boiler, off, { answers: [answer(boiler, 'on', says)] });
    return [all[0]!.cause, surenessOf(all, [])];
  };
  expect(asked('no')).toEqual(['node-off', 'certain']);
  expect(asked('yes')).toEqual(['node-unplugged', 'certain']);
});

describe('nothing is amiss in', () => {
  const withMachine = (id: string, over: object): ShowRecords => ({
    ...ferry,
    machine: ferry.machine.map((one) => (one.id === id ? { ...one, ...over } : one)),
  });
  const amiss = (about: Subject, change: (world: World) => World, given?: Given) => judged(about, change, given).amiss;

  test('a plan without addresses, wherever its machines turn out to be', () => {
    const records = withMachine('machine-boiler', { interfaces: [] });
    const there = (world: World) => withNode(world, 'machine-boiler', () => ({ address: '127.0.0.77' }));
    expect(amiss(boiler, asIs, { records })).toEqual([]);
    expect(amiss(boiler, there, { records })).toEqual([]);
    const sender = withMachine('machine-bridge', { interfaces: [] });
    expect(
      amiss(six, (world) => withSender(world, bridge, () => ({ address: '127.0.0.90' })), { records: sender }),
    ).toEqual([]);
  });

  test('an address that a server hands out', () => {
    const records = withMachine('machine-boiler', {
      interfaces: [{ name: '', mac: '', addresses: [{ way: 'dhcp', address: '', prefix: 8 }] }],
    });
    expect(
      amiss(boiler, (world) => withNode(world, 'machine-boiler', () => ({ address: '127.0.0.77' })), { records }),
    ).toEqual([]);
  });

  test('a universe that only this computer sends, by a route', () => {
    const seven = { protocol: 'sacn', number: 30 } as const;
    const own = [
      {
        id: 'own-x',
        name: 'Taxiarch',
        address: '127.0.0.1',
        cid: 'own-x',
        on: true,
        through: null,
        streams: [plainStream(seven)],
      },
    ];
    const records: ShowRecords = {
      ...withMachine('machine-quay', {
        ports: ferry.machine
          .find(({ id }) => id === 'machine-quay')!
          .ports.map((one) => (one.number === 1 ? { ...one, universe: 50 } : one)),
      }),
      universe: [
        ...ferry.universe,
        { id: 'u50', rev: 0, number: 50, name: '', protocol: 'sacn', wire: 30, merge: 'htp' },
      ],
    };
    const present = { ...PRESENT, own };
    const found = scene(subject('universe', '50'), asIs, { records, present });
    expect(found.seen.nodes.find(({ id }) => id === 'machine-quay')!.ports[0]).toMatchObject({ active: true });
    expect(judge(narrow(found)).amiss).toEqual([]);
  });

  test('boxes that are not polled, or speak no Art-Net: that they say nothing means nothing', () => {
    const silent = (world: World) => ({ ...world, nodes: world.nodes.map((one) => ({ ...one, tells: false })) });
    expect(amiss(six, silent, { present: { ...PRESENT, polled: false } })).toEqual([]);
    const records = {
      ...ferry,
      model: ferry.model.map((one) => (one.name === 'Quad 4' ? { ...one, protocols: ['sacn' as const] } : one)),
    };
    expect(amiss(boiler, (world) => withNode(world, 'machine-boiler', () => ({ tells: false })), { records })).toEqual(
      [],
    );
  });

  test('Art-Net that goes to listing nodes only, while this computer lists nothing', () => {
    const present = { ...PRESENT, here: { addresses: [], lists: new Set<number>() } };
    const deaf = (world: World) => world;
    const found = scene(subject('universe', '9'), deaf, { present });
    expect(found.seen.streams.some(({ key }) => key > 65_535)).toBe(false);
    expect(judge(narrow(found)).amiss).toEqual([]);
  });

  test('a sender that is silent when idle, and one that sends as many slots as its lamps need', () => {
    const records = withMachine('machine-gangway', {
      sends: {
        ...ferry.machine.find(({ id }) => id === 'machine-gangway')!.sends!,
        lines: [{ ...ferry.machine.find(({ id }) => id === 'machine-gangway')!.sends!.lines[0]!, whenIdle: false }],
      },
    });
    const idle = (world: World) => withSender(world, 'machine-gangway', () => ({ on: false }));
    expect(amiss(subject('universe', '40'), idle, { records }).filter(({ kind }) => kind === 'stream')).toEqual([]);
    const few = (slots: number) => (world: World) => withStreams(world, 'machine-gangway', () => ({ slots }));
    expect(amiss(subject('universe', '40'), few(8))).toEqual([]);
    expect(amiss(subject('universe', '40'), few(7))).not.toEqual([]);
  });
});

test('ports and universes are called as a person knows them', () => {
  const names = namesOf(ferry);
  expect(names.port('machine-boiler', 3)).toBe('port 3 of Boiler node');
  // A pixel controller takes universes of the show, not ports.
  expect(names.port('machine-rail-port', 2)).toBe('universe 15 of Port rail driver');
  expect(names.of('lamp-101')).toBe('lamp 101');
  expect(names.of('127.0.0.98')).toBe('127.0.0.98');
});

test('two faults at once are both named', () => {
  const { together } = judged(six, (world) =>
    withPort(
      withStreams(world, stern, () => ({ priority: 110 })),
      'machine-boiler',
      1,
      { wire: 60 },
    ),
  );
  expect(together.map(({ cause }) => cause).sort()).toEqual(['port-elsewhere', 'priority-differs']);
});

test('every cause has a name of its own', () => {
  expect(new Set(CAUSES.map(({ id }) => id)).size).toBe(CAUSES.length);
});
