import { Patch } from '../patch';
import { nightFerry } from '../demo';
import type { Subject } from '../records';
import {
  observe,
  plannedWorld,
  withNode,
  withPort,
  withSender,
  withStreams,
  withVisualiser,
  type Observed,
  type World,
} from '../simulate';
import { bestQuestion } from './ask';
import { CAUSES } from './causes';
import { subject, type Scene } from './cause';
import { judge } from './judge';
import { narrow } from './narrow';
import { nearOf } from './near';

const ferry = nightFerry();
const patch = new Patch(ferry.lamp, ferry.type, ferry.run, ferry.machine);
const names = new Map(ferry.machine.map(({ id, name }) => [id, name]));

/** Of what was heard and said nothing else: people are asked later. */
const unanswered = (observed: Observed): Observed => ({ ...observed, answers: new Map() });

/** What stands near something, while the world is as `change` makes it. */
function sceneOf(about: Subject, change: (world: World) => World, answers: Observed['answers'] = new Map()): Scene {
  const near = nearOf(about, ferry, patch);
  const world = plannedWorld(ferry, patch, near.lamps);
  return {
    records: ferry,
    near,
    world,
    whole: world,
    seen: { ...unanswered(observe(change(world))), answers },
    nameOf: (id) => names.get(id) ?? id,
  };
}
const judged = (about: Subject, change: (world: World) => World, answers?: Observed['answers']) =>
  judge(narrow(sceneOf(about, change, answers)));

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
  ['slow', six, (world) => withStreams(world, bridge, () => ({ rate: 1 }))],
  ['ragged', six, (world) => withStreams(world, bridge, () => ({ ragged: true }))],
  [
    'sync-nobody',
    six,
    (world) => withStreams(world, bridge, ({ wire }) => (wire.protocol === 'sacn' ? { syncAddress: 7 } : {})),
  ],
  ['start-code', six, (world) => withStreams(world, bridge, () => ({ startCode: 0x55 }))],
  ['short-packets', six, (world) => withStreams(world, bridge, () => ({ slots: 24 }))],
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
  const off = judged(boiler, (world) => withNode(world, 'machine-boiler', () => ({ powered: false })));
  expect(
    off.suspects
      .slice(0, 2)
      .map(({ cause }) => cause)
      .sort(),
  ).toEqual(['node-off', 'node-unplugged']);
  const scene = narrow(sceneOf(boiler, (world) => withNode(world, 'machine-boiler', () => ({ powered: false }))));
  expect(bestQuestion(off.suspects, scene)).toBe('machine machine-boiler on');
  const asked = (answer: 'yes' | 'no') =>
    judged(
      boiler,
      (world) => withNode(world, 'machine-boiler', () => ({ powered: false })),
      new Map([['machine machine-boiler on', answer]]),
    ).suspects[0]!;
  expect(asked('no').cause).toBe('node-off');
  expect(asked('yes').cause).toBe('node-unplugged');
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
