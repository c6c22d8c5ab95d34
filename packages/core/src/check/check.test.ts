import fc from 'fast-check';
import { nightFerry } from '../demo';
import { MODELS } from '../library';
import { plainPort } from '../machine';
import { recordsAfter } from '../patch';
import {
  PLAIN_MACHINE,
  type Machine,
  type MachineInterface,
  type MachinePort,
  type Network,
  type ShowRecords,
} from '../show';
import { NETWORK_CHECKS, networkConsequences, networkFindings, networkRepairs } from '.';

const LIGHTING: Network = {
  id: 'lighting',
  rev: 1,
  name: 'Lighting network',
  network: '10.0.0.0',
  prefix: 8,
  dhcp: false,
  standIn: false,
  ranges: [],
};

const at = (address: string, prefix = 8, way: 'fixed' | 'dhcp' = 'fixed') => ({ way, address, prefix });
const iface = (...addresses: ReturnType<typeof at>[]): MachineInterface => ({ name: '', mac: '', addresses });

function machine(name: string, interfaces: readonly MachineInterface[], more: Partial<Machine> = {}): Machine {
  return { ...PLAIN_MACHINE, id: name, rev: 1, name, kind: 'node', interfaces, ...more };
}

const show = (machines: readonly Machine[], more: Partial<ShowRecords> = {}): ShowRecords => ({
  ...nightFerry(),
  machine: machines,
  network: [LIGHTING],
  model: MODELS,
  source: [],
  ...more,
});

const desk = machine('Desk', [iface(at('10.0.0.1'))], { kind: 'console' });
const sender = [
  {
    id: 's',
    rev: 1,
    name: 'Desk',
    address: '',
    universes: [1],
    priority: 100,
    pennant: { letter: 'D', cut: 'square', fill: 'plain' },
  },
] as const;
const carries = (universe: number, over: Partial<MachinePort> = {}): Partial<Machine> => ({
  ports: [{ ...plainPort(1, universe), ...over }],
});

/** For each rule a show that raises it; the same show mended raises nothing. */
const RAISED: Readonly<Record<string, ShowRecords>> = {
  'same address': show([desk, machine('Node', [iface(at('10.0.0.1'))])]),
  'masks disagree': show([desk, machine('Node', [iface(at('10.0.0.2', 24))])]),
  'network or broadcast address': show([desk, machine('Node', [iface(at('10.255.255.255'))])]),
  'loopback between machines': show([desk, machine('Node', [iface(at('127.0.0.1'))])], {
    network: [LIGHTING, { ...LIGHTING, id: 'lo', network: '127.0.0.0', name: 'Loop' }],
  }),
  'cannot reach': show(
    [desk, machine('Node', [iface(at('10.0.0.2'))], carries(1)), machine('Far', [iface(at('2.0.0.9'))], carries(1))],
    {
      source: sender,
      network: [LIGHTING, { ...LIGHTING, id: 'far', network: '2.0.0.0', name: 'Far' }],
    },
  ),
  'two interfaces in one subnet': show([machine('Node', [iface(at('10.0.0.2')), iface(at('10.0.0.3'))])]),
  'outside every plan': show([desk, machine('Node', [iface(at('2.0.0.3'))])]),
  'DHCP without a server': show([desk, machine('Node', [iface(at('', 8, 'dhcp'))])]),
  'beyond the model': show([machine('Node', [], { modelId: 'model-marram-pair-2', ...carries(1, { merge: 'ltp' }) })]),
  'one sub-net a page': show(
    [machine('Node', [], { modelId: 'model-tern-rack-8', ports: [plainPort(1, 1), plainPort(2, 2)] })],
    {
      universe: [
        { id: 'u1', rev: 1, number: 1, name: '', protocol: 'sacn', wire: 1, merge: 'htp' },
        { id: 'u2', rev: 1, number: 2, name: '', protocol: 'sacn', wire: 300, merge: 'htp' },
      ],
    },
  ),
};

test('there is a show here for every check', () =>
  expect(Object.keys(RAISED).sort()).toEqual(NETWORK_CHECKS.map(({ rule }) => rule).sort()));

test('the demo show’s network has no faults', () => expect(networkFindings(nightFerry())).toEqual([]));

test.each(Object.entries(RAISED))('%s is found, alone, and in a sentence', (rule, records) => {
  const found = networkFindings(records);
  expect(found.map((one) => one.rule)).toEqual([rule]);
  expect(found[0]!.sentence).toMatch(/^[A-Z].*\.$/);
  expect(found[0]!.subjects.length).toBeGreaterThan(0);
});

test.each(Object.entries(RAISED).filter(([rule]) => rule !== 'one sub-net a page'))(
  'each repair of “%s” mends it and brings no other',
  (_, records) => {
    const [finding] = networkFindings(records);
    const repairs = networkRepairs(records, finding!);
    expect(repairs.length).toBeGreaterThan(0);
    for (const { plan } of repairs) {
      expect(networkFindings(recordsAfter(records, plan.changes))).toEqual([]);
      expect(plan.lines.length).toBeGreaterThan(0);
      expect(networkConsequences(records, plan)).toEqual([]);
    }
  },
);

test('what a plan would bring is told before it is written', () => {
  const node = machine('Node', [iface(at('10.0.0.2'))]);
  const worse = { ...node, interfaces: [iface(at('10.0.0.1'))] };
  const plan = { sentence: '', changes: [{ kind: 'machine', id: node.id, rev: 1, after: worse }], lines: [] } as const;
  expect(networkConsequences(show([desk, node]), plan).map(({ rule }) => rule)).toEqual(['same address']);
});

test('machines with addresses of their own in one subnet are never found fault with', () =>
  fc.assert(
    fc.property(fc.uniqueArray(fc.integer({ min: 1, max: 0xfffffe }), { minLength: 1, maxLength: 40 }), (hosts) => {
      const machines = hosts.map((host, i) =>
        machine(`m${i}`, [iface(at(`10.${host >> 16}.${(host >> 8) & 255}.${host & 255}`))]),
      );
      expect(networkFindings(show(machines))).toEqual([]);
    }),
  ));

test('an address given twice is always found, whoever has it', () =>
  fc.assert(
    fc.property(fc.integer({ min: 2, max: 30 }), fc.nat(), fc.nat(), (count, x, y) => {
      const [a, b] = [x % count, y % count];
      fc.pre(a !== b);
      const machines = Array.from({ length: count }, (_, i) =>
        machine(`m${i}`, [iface(at(`10.0.1.${(i === b ? a : i) + 1}`))]),
      );
      const found = networkFindings(show(machines));
      expect(found.map(({ rule }) => rule)).toEqual(['same address']);
      expect([...found[0]!.subjects].sort()).toEqual([`m${a}`, `m${b}`].sort());
    }),
  ));
