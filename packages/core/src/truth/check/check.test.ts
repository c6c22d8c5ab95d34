import fc from 'fast-check';
import { nightFerry } from '../../whole/demo';
import { MODELS } from '../../rig/library';
import { plainPort } from '../../network/machine';
import { recordsAfter } from '../../show/edit';
import {
  type Machine,
  type MachineInterface,
  type MachinePort,
  type Network,
  PLAIN_INPUT,
  PLAIN_MACHINE,
  PLAIN_LINE,
  PLAIN_ROUTE,
  type ShowRecords,
  type SendLine,
  type Sending,
} from '../../show/records';
import { linkLoad, NETWORK_CHECKS, networkConsequences, networkFindings, networkRepairs } from '.';

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

interface Sends extends Sending {
  readonly name: string;
}

/** Machines that send; those of whom there is no other word are consoles without an address. */
const withSenders = (machines: readonly Machine[], senders: readonly Sends[]): Machine[] => [
  ...machines.map((one) => {
    const its = senders.find(({ name }) => name === one.name);
    return its ? { ...one, sends: { lines: its.lines, pennant: its.pennant } } : one;
  }),
  ...senders
    .filter(({ name }) => !machines.some((one) => one.name === name))
    .map(({ name, lines, pennant }) => machine(name, [], { kind: 'console', sends: { lines, pennant } })),
];

const show = (
  machines: readonly Machine[],
  { senders = [], machine: others = machines, ...more }: Partial<ShowRecords> & { senders?: readonly Sends[] } = {},
): ShowRecords => ({
  ...nightFerry(),
  network: [LIGHTING],
  model: MODELS,
  machine: withSenders(others, senders),
  lamp: [],
  run: [],
  ...more,
});

const desk = machine('Desk', [iface(at('10.0.0.1'))], { kind: 'console' });
const sends = (name: string, universes: readonly number[], priority = 100): Sends => ({
  name,
  lines: universes.map((from) => ({ ...PLAIN_LINE, from, priority, rate: 40 })),
  pennant: { letter: name[0]!, cut: 'square', fill: 'plain' },
});
const senders = [sends('Desk', [1])];
const lamps = (universe: number) => nightFerry().lamp.filter((one) => one.universe === universe);
const carries = (universe: number, over: Partial<MachinePort> = {}): Partial<Machine> => ({
  ports: [{ ...plainPort(1, universe), ...over }],
});

/** For each rule a show that raises it; the same show mended raises nothing. */
const RAISED: Record<string, ShowRecords> = {
  'same address': show([desk, machine('Node', [iface(at('10.0.0.1'))])]),
  'masks disagree': show([desk, machine('Node', [iface(at('10.0.0.2', 24))])]),
  'network or broadcast address': show([desk, machine('Node', [iface(at('10.255.255.255'))])]),
  'loopback between machines': show([desk, machine('Node', [iface(at('127.0.0.1'))])], {
    network: [LIGHTING, { ...LIGHTING, id: 'lo', network: '127.0.0.0', name: 'Loop' }],
  }),
  'cannot reach': show(
    [desk, machine('Node', [iface(at('10.0.0.2'))], carries(1)), machine('Far', [iface(at('2.0.0.9'))], carries(1))],
    {
      senders,
      network: [LIGHTING, { ...LIGHTING, id: 'far', network: '2.0.0.0', name: 'Far' }],
    },
  ),
  'two interfaces in one subnet': show([machine('Node', [iface(at('10.0.0.2')), iface(at('10.0.0.3'))])]),
  'outside every plan': show([desk, machine('Node', [iface(at('2.0.0.3'))])]),
  'DHCP without a server': show([desk, machine('Node', [iface(at('', 8, 'dhcp'))])]),
  'beyond the model': show([machine('Node', [], { modelId: 'model-marram-pair-2', ...carries(1, { merge: 'ltp' }) })], {
    senders,
  }),
  'one sub-net a page': show(
    [machine('Node', [], { modelId: 'model-tern-rack-8', ports: [plainPort(1, 1), plainPort(2, 2)] })],
    {
      senders: [sends('Desk', [1, 2])],
      universe: [
        { id: 'u1', rev: 1, number: 1, name: '', protocol: 'sacn', wire: 1, merge: 'htp' },
        { id: 'u2', rev: 1, number: 2, name: '', protocol: 'sacn', wire: 300, merge: 'htp' },
      ],
    },
  ),
};

const node = machine('Node', [], carries(1));
const backup = machine('Aft', [iface(at('10.0.0.8'))], { kind: 'backup console' });
Object.assign(RAISED, {
  'no sender': show([node], {
    lamp: lamps(2),
    senders,
    machine: [
      node,
      machine('More', [], { controller: { firstUniverse: 2, universes: 1, outputs: 1, channelsPerOutput: 510 } }),
    ],
  }),
  'nothing sent to the port': show([node, machine('Far', [], carries(6))], { senders }),
  'no port': show(
    [node, machine('Free', [], { modelId: 'model-marram-quad-4', ports: [{ ...plainPort(1, 1), use: 'off' }] })],
    {
      lamp: lamps(2),
      senders: [sends('Desk', [1, 2])],
    },
  ),
  'no receiver': show([node], { senders: [sends('Desk', [1, 7])] }),
  'protocols differ': show([machine('Node', [], carries(1, { protocol: 'artnet' }))], { senders }),
  priorities: show([machine('Node', [], carries(1)), desk, backup], {
    senders: [sends('Desk', [1]), sends('Aft', [1], 100)],
  }),
  'more sources than merge': show(
    [machine('Node', [], { modelId: 'model-marram-pair-2', ...carries(1, { merge: 'none' }) })],
    {
      senders: [sends('Desk', [1]), sends('Other', [1], 90)],
    },
  ),
  'beyond the allowance': show(
    [{ ...desk, modelId: 'model-tern-touch' }, machine('Node', [], { ports: [1, 2, 3].map((n) => plainPort(n, n)) })],
    { senders: [sends('Desk', [1, 2, 3])] },
  ),
});
/** A sender with one line as given. */
const line = (over: Partial<SendLine>, name = 'Desk') => ({
  ...sends(name, []),
  lines: [{ ...PLAIN_LINE, from: 1, ...over }],
});
const many = (count: number) => Array.from({ length: count }, (_, i) => plainPort(i + 1, i + 1));
Object.assign(RAISED, {
  'sent beside the plan': show([node], { senders: [line({ to: { protocol: 'sacn', number: 2 } })] }),
  'protocols mixed': show([node], {
    senders: [
      {
        ...line({}),
        lines: [
          { ...PLAIN_LINE, from: 1 },
          { ...PLAIN_LINE, from: 1, to: { protocol: 'artnet', number: 0 } },
        ],
      },
    ],
  }),
  'unicast to no carrier': show([node, machine('Far', [iface(at('10.0.0.9'))])], {
    senders: [line({ delivery: 'unicast', addresses: ['10.0.0.9'] })],
  }),
  'fed back': show([node, machine('Inlet', [iface(at('10.0.0.7'))], { ports: [{ ...plainPort(1, 1), use: 'in' }] })], {
    senders,
  }),
  'too fast': show([node], { senders: [line({ rate: 60 })] }),
  'load of a link': show([machine('Hub', [], { ports: many(400) }), { ...desk, modelId: 'gigabit' }], {
    model: [...MODELS, { ...MODELS[0]!, id: 'gigabit', speed: 1000 }],
    senders: [line({ count: 400, rate: 44 })],
    universe: Array.from({ length: 400 }, (_, i) => ({
      id: `u${i + 1}`,
      rev: 1,
      number: i + 1,
      name: '',
      protocol: 'sacn' as const,
      wire: i + 1,
      merge: 'htp' as const,
    })),
  }),
  'multicast groups': show(
    [
      machine('Weave', [], { kind: 'switch', modelId: 'model-quillon-weave-10' }),
      machine('Hub', [], { ports: many(300) }),
    ],
    {
      senders: [line({ count: 300, rate: 20 })],
      universe: Array.from({ length: 300 }, (_, i) => ({
        id: `u${i + 1}`,
        rev: 1,
        number: i + 1,
        name: '',
        protocol: 'sacn' as const,
        wire: i + 1,
        merge: 'htp' as const,
      })),
    },
  ),
});
/** What only a person can decide. */
const WITHOUT_REPAIR = [
  'one sub-net a page',
  'more sources than merge',
  'beyond the allowance',
  'load of a link',
  'multicast groups',
];

test('there is a show here for every check', () =>
  expect(Object.keys(RAISED).sort()).toEqual(NETWORK_CHECKS.map(({ rule }) => rule).sort()));

test('the demo show’s network has no faults', () => expect(networkFindings(nightFerry())).toEqual([]));

test.each(Object.entries(RAISED))('%s is found, alone, and in a sentence', (rule, records) => {
  const found = networkFindings(records);
  expect(found.map((one) => one.rule)).toEqual([rule]);
  expect(found[0]!.sentence).toMatch(/^[A-Z].*\.$/);
  expect(found[0]!.subjects.length).toBeGreaterThan(0);
});

test.each(Object.entries(RAISED).filter(([rule]) => !WITHOUT_REPAIR.includes(rule)))(
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

describe('loopback in a show without an address plan', () => {
  const loop = (name: string, host: number) => machine(name, [iface(at(`127.0.0.${host}`))]);

  test('one edit keeps the loopback addresses for stand-ins and cures all three', () => {
    const records = show([loop('Desk', 2), loop('North', 3), loop('South', 4)], { network: [] });
    const findings = networkFindings(records);
    expect(findings.map(({ rule }) => rule)).toEqual(Array(3).fill('loopback between machines'));
    for (const finding of findings) {
      const [repair] = networkRepairs(records, finding);
      expect(networkFindings(recordsAfter(records, repair!.plan.changes))).toEqual([]);
      expect(repair!.plan.lines[0]!.after).toBe('127.0.0.0/8, for stand-ins: Desk, North, South');
    }
  });

  test('among real addresses the machine moves into their subnet, which becomes the address plan', () => {
    const records = show([desk, loop('North', 3)], { network: [] });
    const [finding] = networkFindings(records);
    const repairs = networkRepairs(records, finding!);
    expect(repairs.map(({ label }) => label)).toEqual(['Give North 10.0.0.2 in 10.0.0.0/8']);
    const after = recordsAfter(records, repairs[0]!.plan.changes);
    expect(networkFindings(after)).toEqual([]);
    expect(after.network).toMatchObject([{ network: '10.0.0.0', prefix: 8, standIn: false }]);
  });
});

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

test('a port one beside what is sent is told as bases mixed up, with the shift, and turned', () => {
  const records = show([node, machine('Far', [], carries(4))], { senders: [sends('Desk', [1, 3])], lamp: lamps(3) });
  const finding = networkFindings(records).find(({ rule }) => rule === 'nothing sent to the port')!;
  expect(finding.sentence).toBe(
    'Far, port 1, carries universe 4, which nobody sends; universe 3 is sent and reaches no port. One of them counts from 1 and the other from 0: it is off by one.',
  );
  const [turn] = networkRepairs(records, finding);
  expect(turn!.label).toBe('Turn it to universe 3');
  expect(networkFindings(recordsAfter(records, turn!.plan.changes))).toEqual([]);
});

test('a backup may send what the main console sends, as long as it is lower', () => {
  const both = (priority: number) =>
    show([node, desk, backup], { senders: [sends('Aft', [1], priority), sends('Desk', [1], 100)] });
  expect(networkFindings(both(90))).toEqual([]);
  expect(networkFindings(both(120)).map(({ sentence }) => sentence)).toEqual([
    'Aft is the backup and sends universe 1 at priority 120, not below the 100 of Desk.',
  ]);
});

test('an input sends too', () => {
  const ports = [{ ...plainPort(1, 9, 'artnet'), use: 'in' as const }, plainPort(2, 9, 'artnet')];
  const through = machine('Through', [], { ports });
  expect(networkFindings(show([through]))).toEqual([]);
});

test('a whole line one beside the plan is told as bases mixed up; another protocol as such', () => {
  const says = (to: SendLine['to']) =>
    networkFindings(show([node], { senders: [line({ to })] })).map(({ sentence }) => sentence);
  expect(says({ protocol: 'sacn', number: 2 })[0]).toMatch(
    /planned is sACN 1\. One of them counts from 0.*off by one\.$/,
  );
  expect(says({ protocol: 'sacn', number: 9 })[0]).toMatch(/the show plans universe 1 as sACN 1\.$/);
  expect(says({ protocol: 'artnet', number: 0 })[0]).toMatch(/the show plans universe 1 by sACN\.$/);
  expect(says({ protocol: 'sacn', number: 1 })).toEqual([]);
});

test('the load of a link is shown with its arithmetic', () => {
  const [finding] = networkFindings(RAISED['load of a link']!);
  // 400 universes × 44 Hz × 704 bytes × 8 = 99.1 Mbit/s
  expect(finding!.sentence).toContain('99 Mbit/s in 17600 packets a second');
  expect(finding!.evidence).toEqual(['400 × 44 Hz × 704 bytes × 8']);
});

test('a quicker connector carries the same, and what it carries is told of any machine', () => {
  const records = RAISED['load of a link']!;
  const [hub] = records.machine;
  const quick = {
    ...records,
    machine: records.machine.map((one) => (one.id === hub!.id ? { ...one, modelId: 'gigabit' } : one)),
  };
  expect(networkFindings(quick).some(({ rule }) => rule === 'load of a link')).toBe(false);
  expect(linkLoad(quick, quick.machine[0]!)).toEqual({
    sum: '17600 packets a second, 99 of 1000 Mbit/s',
    terms: ['400 × 44 Hz × 704 bytes × 8'],
  });
  expect(linkLoad(quick, machine('Unused', []))).toBeUndefined();
});

test('a sender by unicast pays for each that it sends to, by multicast once', () => {
  const takers = ['A', 'B', 'C'].map((name, i) => machine(name, [iface(at(`10.0.0.${i + 2}`))], carries(1)));
  const sum = (over: Partial<SendLine>) => {
    const records = show([desk, ...takers], { senders: [line(over)] });
    return linkLoad(records, desk)!.sum.split(' packets')[0];
  };
  expect(sum({ rate: 40 })).toBe('40');
  expect(sum({ rate: 40, delivery: 'unicast', addresses: takers.map((_, i) => `10.0.0.${i + 2}`) })).toBe('120');
  // Art-Net goes to each that lists the universe, unless it is broadcast.
  expect(sum({ rate: 40, to: { protocol: 'artnet', number: 0 } })).toBe('120');
  expect(sum({ rate: 40, to: { protocol: 'artnet', number: 0 }, delivery: 'broadcast' })).toBe('40');
});

test('what goes in and comes out again through routes is found, however many lie between', () => {
  const wire = (number: number) => ({ protocol: 'sacn' as const, number });
  const route = (from: number, to: number) => ({
    ...PLAIN_ROUTE,
    id: `r${from}`,
    rev: 1,
    name: `r${from}`,
    order: from,
    inputs: [{ ...PLAIN_INPUT, wire: wire(from) }],
    out: wire(to),
  });
  const inlet = machine('Inlet', [iface(at('10.0.0.7'))], { ports: [{ ...plainPort(1, 1), use: 'in' }] });
  const outlet = machine('Outlet', [iface(at('10.0.0.8'))], carries(3));
  const found = (routes: ShowRecords['route']) =>
    networkFindings(show([inlet, outlet], { senders: [sends('Desk', [1, 3])], route: routes })).filter(
      ({ rule }) => rule === 'fed back',
    );
  expect(found([])).toEqual([]);
  expect(found([route(1, 2), route(2, 3)])[0]?.sentence).toMatch(
    /If its cable comes from Outlet, port 1, it feeds itself/,
  );
});

test('a route sends too', () => {
  const records = show([machine('Node', [], carries(2))], { senders: [], lamp: lamps(2) });
  const route = {
    ...PLAIN_ROUTE,
    id: 'r',
    rev: 1,
    name: 'r',
    order: 1,
    inputs: [{ ...PLAIN_INPUT, wire: { protocol: 'sacn' as const, number: 7 } }],
    out: { protocol: 'sacn' as const, number: 2 },
  };
  expect(networkFindings(records).length).toBeGreaterThan(0);
  expect(networkFindings({ ...records, route: [route] })).toEqual([]);
});
