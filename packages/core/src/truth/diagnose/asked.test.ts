/** Lamps that were asked: what each says decides between causes that look alike, and what was said long ago decides nothing. */
import { withLamp, withNode, withPort, type World, type WorldLamp } from '../simulate';
import type { Answer } from '../known';
import type { RollReply, RollRow, SeenLamp } from '../roll';
import { askedLamps } from './asked';
import { subject } from './cause';
import { answer, judged } from './testing/scenes';

const ID = 'lamp-301';
const lamp = subject('lamp', ID);
const at = (over: Partial<WorldLamp>) => (world: World) => withLamp(world, ID, over);
const named = (change: (world: World) => World, answers: readonly Answer[] = []) =>
  judged(lamp, change, { asked: [ID], answers }).suspects[0]?.cause;
const looked = (lit: 'yes' | 'no', right: 'yes' | 'no' = lit) => [
  answer(lamp, 'lit', lit),
  answer(lamp, 'right', right),
];
const cable = (says: 'yes' | 'no') => answer(subject('port', 'machine-boiler', '1'), 'cable', says);

test('one that answers as planned is suspected of nothing', () => {
  expect(named((world) => world)).toBeUndefined();
});

test.each([
  ['lamp-address', at({ set: 200 }), looked('no')],
  ['lamp-shifted', at({ set: 2 }), looked('yes', 'no')],
  ['lamp-mode', at({ fits: false }), looked('yes', 'no')],
  ['lamp-mode', at({ fits: false }), []],
  ['lamp-elsewhere', at({ ports: [], elsewhere: true }), looked('no')],
  ['lamp-elsewhere', at({ ports: [], elsewhere: true }), []],
  ['lamp-dead', at({ works: false }), [...looked('no'), cable('yes')]],
  ['lamp-deaf', at({ deaf: true }), looked('yes')],
  ['port-cable', (world: World) => withPort(world, 'machine-boiler', 1, { cable: false }), [cable('no')]],
] as const)('%s is named first by what it says and what people see', (cause, change, answers) => {
  expect(named(change, answers)).toBe(cause);
});

test('whoever is seen to light is not dead, though it answers nothing', () => {
  const { suspects } = judged(lamp, at({ deaf: true }), {
    asked: [ID],
    answers: looked('yes'),
  });
  expect(suspects.find(({ cause }) => cause === 'lamp-dead')?.contradicted ?? ['it']).not.toEqual([]);
});

test('with its node away it is the node, and not the lamp', () => {
  const off = (world: World) => withNode(world, 'machine-boiler', () => ({ powered: false }));
  const answers = ['on', 'link'].map((question) => answer(subject('machine', 'machine-boiler'), question, 'no'));
  expect(named(off, answers)).toBe('node-off');
});

const NOW = 1_000_000;
const row = (over: Partial<RollRow>): RollRow =>
  ({
    ...{ lampId: ID, machineId: 'machine-boiler', portNumber: 1, state: 'as planned', differences: [] },
    seen: { says: 'all', at: NOW - 1000 } as SeenLamp,
    ...over,
  }) as RollRow;
const reply = (rows: readonly RollRow[], port: object = {}): RollReply =>
  ({
    rows,
    ports: [{ machineId: 'machine-boiler', number: 1, state: 'asked', at: NOW - 2000, ...port }],
  }) as unknown as RollReply;

test('what was said lately counts, beside its plan', () => {
  const differs = row({ differences: [{ what: 'address', planned: '1', seen: '9' }] });
  expect(askedLamps(reply([differs]), NOW)).toEqual({
    asked: new Set([ID]),
    lamps: [{ id: ID, on: 'planned', set: 'another', mode: 'planned' }],
  });
  // One that is missing was asked, and says nothing.
  expect(askedLamps(reply([row({ state: 'missing', seen: null })]), NOW)).toEqual({ asked: new Set([ID]), lamps: [] });
});

test.each([
  ['it was long ago', reply([row({ seen: { says: 'all', at: NOW - 90_000 } as SeenLamp })])],
  ['its port cannot be asked now', reply([row({})], { state: 'away' })],
  ['its port was asked long ago', reply([row({ state: 'missing', seen: null })], { at: NOW - 90_000 })],
])('nothing is made of it where %s', (_, told) => {
  expect(askedLamps(told, NOW)).toEqual({ asked: new Set(), lamps: [] });
});
