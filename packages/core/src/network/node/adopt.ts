/** What is taken from the wire into the plan: a machine's settings, a stranger, a match made by hand. */
import { formatWire } from '../../base/address';
import type { HeardMachine, NodeReport } from './nodeReport';
import { addressesOf, maskLength, withMainAddress } from '../ip';
import { plainPort } from '../machine';
import { added, changed, countOf, type Plan, type PlanLine, recordsAfter } from '../../show/edit';
import {
  type AddressWay,
  type Machine,
  type MachineKind,
  type MachinePort,
  PLAIN_MACHINE,
  type ShowRecords,
  type Universe,
} from '../../show/records';
import { commonFailSafe, portOf, type Drift } from './drift';
import { driftWords } from './driftWords';

const KINDS: Readonly<Record<NodeReport['kind'], MachineKind>> = {
  node: 'node',
  console: 'console',
  'media server': 'media server',
  visualiser: 'visualiser',
  other: 'computer',
};

/** Ports as the wire shows them, and universes that the show lacks to tell of them. */
export interface SeenPorts {
  readonly ports: readonly MachinePort[];
  readonly universes: readonly Universe[];
}

/**
 * Finds the show universe of a number on the wire. One that is not in the show goes by its own number;
 * where that belongs to another, a universe is made for it.
 */
class UniverseFinder {
  readonly made: Universe[] = [];
  private readonly numbers: Set<number>;

  constructor(private readonly universes: readonly Universe[]) {
    this.numbers = new Set(universes.map(({ number }) => number));
  }

  find(protocol: 'sacn' | 'artnet', wire: number): number {
    const all = [...this.universes, ...this.made];
    const known =
      all.find((one) => one.protocol === protocol && one.wire === wire) ?? all.find((one) => one.wire === wire);
    if (known) return known.number;
    let number = Math.max(1, wire + (protocol === 'artnet' ? 1 : 0));
    if (!this.numbers.has(number)) return number;
    while (this.numbers.has(number)) number += 1;
    this.numbers.add(number);
    this.made.push({ id: `universe-${protocol}-${wire}`, rev: 0, number, name: '', protocol, wire, merge: 'htp' });
    return number;
  }
}

/** A plan's ports as the wire shows them; what the wire does not tell stays as it was planned. */
export function portsAsSeen(
  there: readonly MachinePort[],
  node: NodeReport,
  universes: readonly Universe[],
): SeenPorts {
  const known = new Map(there.map((port) => [port.number, port]));
  const finder = new UniverseFinder(universes);
  const ports = node.ports.map((seen): MachinePort => {
    const protocol = seen.sacn ? 'sacn' : 'artnet';
    const base = known.get(seen.number) ?? plainPort(seen.number, 1, protocol);
    const fail = node.failSafe;
    const differs = fail !== null && commonFailSafe([{ ...base, use: 'out' }]) !== fail;
    return {
      ...base,
      use: seen.disabled ? 'off' : seen.direction,
      protocol,
      universe: finder.find(protocol, seen.portAddress),
      copyOf: null,
      rdm: seen.direction === 'out' && node.rdmSwitch ? seen.rdm : base.rdm,
      merge: base.merge === 'htp' || base.merge === 'ltp' ? (seen.ltp ? 'ltp' : 'htp') : base.merge,
      priority: seen.direction === 'in' ? node.priority : base.priority,
      ...(differs && { loss: { kind: fail === 'black' ? 'hold-black' : fail, after: 0, over: 0 } }),
    };
  });
  const seen = new Set(ports.map(({ number }) => number));
  const rest = there.filter(({ number }) => !seen.has(number)).map((port): MachinePort => ({ ...port, use: 'off' }));
  return { ports: [...ports, ...rest].sort((a, b) => a.number - b.number), universes: finder.made };
}

const addUniverses = (universes: readonly Universe[]): Pick<Plan, 'changes' | 'lines'> => ({
  changes: universes.map((one) => added('universe', one)),
  lines: universes.map(({ number, protocol, wire }) => ({
    subject: `Universe ${number}`,
    before: '',
    after: `added, as ${formatWire({ protocol, number: wire })}`,
  })),
});

/** A machine whose main address comes about in another way. */
const cameBy = (machine: Machine, way: AddressWay): Machine => ({
  ...machine,
  interfaces: machine.interfaces.map((one, i) => ({
    ...one,
    addresses: one.addresses.map((at, j) => (i === 0 && j === 0 ? { ...at, way } : at)),
  })),
});

/** The plan of a machine bent to what the wire shows of it. */
export function adoptDrift(
  records: ShowRecords,
  plan: Machine,
  { address, node }: HeardMachine,
  drift: readonly Drift[],
): Plan {
  const kinds = new Set(drift.map(({ kind }) => kind));
  const main = addressesOf(plan)[0];
  let after = plan;
  let brought: readonly Universe[] = [];
  if (kinds.has('address') || kinds.has('mask'))
    after = withMainAddress(after, address, (node && maskLength(node.mask)) ?? main?.prefix ?? 8);
  if (kinds.has('dhcp')) after = cameBy(after, node?.dhcp ? 'dhcp' : 'fixed');
  if (node) {
    if (kinds.has('name')) after = { ...after, name: node.shortName || after.name };
    if (kinds.has('firmware')) after = { ...after, firmware: node.firmware };
    if (drift.some((one) => portOf(one) !== null || one.kind === 'signal lost' || one.kind === 'priority')) {
      const { ports, universes } = portsAsSeen(plan.ports, node, records.universe);
      after = { ...after, ports };
      brought = universes;
    }
  }
  const lines = drift.map(driftWords).map(({ what, planned, seen }): PlanLine => ({
    subject: `${plan.name}, ${what.toLowerCase()}`,
    before: planned,
    after: seen,
  }));
  const more = addUniverses(brought);
  return {
    sentence: `Adopted how ${plan.name} is set`,
    changes: [...more.changes, changed('machine', plan, after)],
    lines: [...more.lines, ...lines],
  };
}

/** A stranger taken into the plan as it is. */
export function adopt(records: ShowRecords, { address, name, node }: HeardMachine, id: string): Plan {
  const { ports, universes } = node ? portsAsSeen([], node, records.universe) : { ports: [], universes: [] };
  const machine: Machine = {
    ...PLAIN_MACHINE,
    id,
    rev: 0,
    name: name || address,
    kind: node ? KINDS[node.kind] : 'console',
    notes: node?.longName ?? '',
    firmware: node?.firmware ?? '',
    interfaces: [
      {
        name: '',
        mac: node?.mac ?? '',
        addresses: [{ way: node?.dhcp ? 'dhcp' : 'fixed', address, prefix: (node && maskLength(node.mask)) ?? 8 }],
      },
    ],
    ports,
  };
  const lines: PlanLine[] = [
    { subject: 'Machine', before: '', after: machine.name },
    { subject: 'Address', before: '', after: address },
    ...(node ? [{ subject: 'Hardware address', before: '', after: node.mac }] : []),
    ...machine.ports.map((port) => ({
      subject: `Port ${port.number}`,
      before: '',
      after: `${port.use}, universe ${port.universe}`,
    })),
  ];
  const more = addUniverses(universes);
  return {
    sentence: `Adopted ${machine.name}`,
    changes: [...more.changes, added('machine', machine)],
    lines: [...lines, ...more.lines],
  };
}

/** Several strangers taken into the plan in one edit; each sees the universes that those before it brought. */
export function adoptAll(
  records: ShowRecords,
  strangers: readonly { readonly heard: HeardMachine; readonly id: string }[],
): Plan {
  let there = records;
  const plans = strangers.map(({ heard, id }) => {
    const plan = adopt(there, heard, id);
    there = recordsAfter(there, plan.changes);
    return plan;
  });
  return {
    sentence: plans.length === 1 ? plans[0]!.sentence : `Adopted ${countOf(plans.length, 'machine')}`,
    changes: plans.flatMap(({ changes }) => changes),
    lines: plans.flatMap(({ lines }) => {
      const name = lines[0]?.after ?? '';
      return lines.map((line, i) => (i === 0 ? line : { ...line, subject: `${name}, ${line.subject.toLowerCase()}` }));
    }),
  };
}

/** Says that a heard machine is this planned one: its hardware address goes into the plan. */
export function matchByHand(plan: Machine, { node, address, name }: HeardMachine): Plan {
  const [first, ...rest] = plan.interfaces;
  const after: Machine = node
    ? { ...plan, interfaces: [{ name: first?.name ?? '', mac: node.mac, addresses: first?.addresses ?? [] }, ...rest] }
    : withMainAddress(plan, address, addressesOf(plan)[0]?.prefix ?? 8);
  return {
    sentence: `Said that ${name || address} is ${plan.name}`,
    changes: [changed('machine', plan, after)],
    lines: [
      {
        subject: `${plan.name}, ${node ? 'hardware address' : 'address'}`,
        before: (node ? first?.mac : addressesOf(plan)[0]?.text) ?? '',
        after: node?.mac ?? address,
      },
    ],
  };
}
