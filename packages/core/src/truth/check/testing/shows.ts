/** Shows in which something is to be found. */
import { nightFerry } from '../../../whole/demo';
import { MODELS } from '../../../rig/library';
import { plainPort } from '../../../network/machine';
import {
  type Machine,
  type MachineInterface,
  type MachinePort,
  type Network,
  PLAIN_MACHINE,
  PLAIN_LINE,
  type ShowRecords,
  type SendLine,
  type Sending,
} from '../../../show/records';

export const LIGHTING: Network = {
  id: 'lighting',
  rev: 1,
  name: 'Lighting network',
  network: '10.0.0.0',
  prefix: 8,
  dhcp: false,
  standIn: false,
  ranges: [],
};

export const at = (address: string, prefix = 8, way: 'fixed' | 'dhcp' = 'fixed') => ({ way, address, prefix });

export const iface = (...addresses: ReturnType<typeof at>[]): MachineInterface => ({ name: '', mac: '', addresses });

export function machine(name: string, interfaces: readonly MachineInterface[], more: Partial<Machine> = {}): Machine {
  return { ...PLAIN_MACHINE, id: name, rev: 1, name, kind: 'node', interfaces, ...more };
}

export interface Sends extends Sending {
  readonly name: string;
}

/** Machines that send; those of whom there is no other word are consoles without an address. */
export const withSenders = (machines: readonly Machine[], senders: readonly Sends[]): Machine[] => [
  ...machines.map((one) => {
    const its = senders.find(({ name }) => name === one.name);
    return its ? { ...one, sends: { lines: its.lines, pennant: its.pennant } } : one;
  }),
  ...senders
    .filter(({ name }) => !machines.some((one) => one.name === name))
    .map(({ name, lines, pennant }) => machine(name, [], { kind: 'console', sends: { lines, pennant } })),
];

export const show = (
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

export const desk = machine('Desk', [iface(at('10.0.0.1'))], { kind: 'console' });

export const sends = (name: string, universes: readonly number[], priority = 100): Sends => ({
  name,
  lines: universes.map((from) => ({ ...PLAIN_LINE, from, priority, rate: 40 })),
  pennant: { letter: name[0]!, cut: 'square', fill: 'plain' },
});

export const senders = [sends('Desk', [1])];

export const lamps = (universe: number) => nightFerry().lamp.filter((one) => one.universe === universe);

export const carries = (universe: number, over: Partial<MachinePort> = {}): Partial<Machine> => ({
  ports: [{ ...plainPort(1, universe), ...over }],
});

/** For each rule a show that raises it; the same show mended raises nothing. */
export const RAISED: Record<string, ShowRecords> = {
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

export const node = machine('Node', [], carries(1));

export const backup = machine('Aft', [iface(at('10.0.0.8'))], { kind: 'backup console' });

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
export const line = (over: Partial<SendLine>, name = 'Desk') => ({
  ...sends(name, []),
  lines: [{ ...PLAIN_LINE, from: 1, ...over }],
});

export const many = (count: number) => Array.from({ length: count }, (_, i) => plainPort(i + 1, i + 1));

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
