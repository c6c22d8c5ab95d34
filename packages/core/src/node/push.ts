/** A plan's settings as packets for a node, and what is taken back from a node into the plan. */
import { ArtNet, encodeAddress, encodeInput, encodeIpProg } from '../artnet';
import { formatWire, splitPortAddress } from '../address';
import type { FailSafe, NodeReport, PushResult } from '../contract';
import { addressesOf, maskLength, maskText, withMainAddress } from '../ip';
import { carriedBy, plainPort, wireNumber } from '../machine';
import { added, changed, type Plan, type PlanLine } from '../patch';
import {
  PLAIN_MACHINE,
  type Machine,
  type MachineKind,
  type MachinePort,
  type ShowRecords,
  type Universe,
} from '../show';
import { commonFailSafe, shortNameOf, type Drift } from './drift';
import type { HeardMachine } from './match';

const FAIL_COMMANDS: Readonly<Record<FailSafe, number>> = {
  hold: ArtNet.AcFailHold,
  black: ArtNet.AcFailZero,
  full: ArtNet.AcFailFull,
  look: ArtNet.AcFailScene,
};

/**
 * The packets that bring a node to its plan, for the fields that differ and that Art-Net can set;
 * the address last, since the node answers elsewhere afterwards.
 */
export function pushPackets(
  plan: Machine,
  universes: ReadonlyMap<number, Universe>,
  node: NodeReport,
  drift: readonly Drift[],
): Uint8Array[] {
  const wanted = new Set(drift.filter(({ way }) => way !== 'panel').map(({ field }) => field));
  const packets: Uint8Array[] = [];
  const settings = new Map(
    plan.ports.map((port) => [port.number, { ...carriedBy(port, plan.ports), number: port.number }]),
  );
  if (wanted.has('name')) packets.push(encodeAddress({ portName: shortNameOf(plan.name), longName: plan.name }));
  for (const page of new Set(node.ports.map((port) => port.page))) {
    const here = node.ports.filter((port) => port.page === page);
    const command = (code: number) => packets.push(encodeAddress({ bindIndex: page, command: code }));
    const inputs = here.filter(({ direction }) => direction === 'in');
    for (const seen of here) {
      const port = settings.get(seen.number);
      const is = (part: string) => wanted.has(`port ${seen.number} ${part}`);
      if (!port) continue;
      if (is('direction') && port.use !== 'off' && seen.direction !== port.use)
        command((port.use === 'in' ? ArtNet.AcDirectionRx : ArtNet.AcDirectionTx) + seen.index);
      if (is('protocol')) command((port.protocol === 'sacn' ? ArtNet.AcAcnSel : ArtNet.AcArtNetSel) + seen.index);
      if (is('merge')) command((port.merge === 'ltp' ? ArtNet.AcMergeLtp : ArtNet.AcMergeHtp) + seen.index);
      if (is('RDM')) command((port.rdm ? ArtNet.AcRdmEnable : ArtNet.AcRdmDisable) + seen.index);
    }
    if (inputs.some(({ number }) => wanted.has(`port ${number} direction`)))
      packets.push(
        encodeInput({
          bindIndex: page,
          ports: here.length,
          disabled: [0, 1, 2, 3].map((index) => {
            const seen = inputs.find((port) => port.index === index);
            return seen !== undefined && settings.get(seen.number)?.use === 'off';
          }),
        }),
      );
    packets.push(...pageAddress(page, here, settings, universes, wanted));
  }
  const fail = commonFailSafe(plan.ports);
  if (wanted.has('signal lost') && fail !== undefined) packets.push(encodeAddress({ command: FAIL_COMMANDS[fail] }));
  const input = plan.ports.find(({ use }) => use === 'in');
  if (wanted.has('priority') && input) packets.push(encodeAddress({ acnPriority: input.priority }));
  if (wanted.has('address') || wanted.has('mask')) {
    const main = addressesOf(plan)[0]!;
    const command = ArtNet.IPPROG_ENABLE | ArtNet.IPPROG_ADDRESS | ArtNet.IPPROG_MASK;
    packets.push(
      main.way === 'dhcp'
        ? encodeIpProg({ command: ArtNet.IPPROG_ENABLE | ArtNet.IPPROG_DHCP })
        : encodeIpProg({ command, ip: main.text, mask: maskText(main.prefix) }),
    );
  }
  return packets;
}

/** Net, sub-net and universes of a page. Its ports share net and sub-net: those of its first port that is off. */
function pageAddress(
  page: number,
  here: NodeReport['ports'],
  settings: ReadonlyMap<number, MachinePort>,
  universes: ReadonlyMap<number, Universe>,
  wanted: ReadonlySet<string>,
): Uint8Array[] {
  const off = here.filter(({ number }) => wanted.has(`port ${number} universe`));
  const wires = off.flatMap((seen) => {
    const port = settings.get(seen.number);
    return port ? [{ seen, ...splitPortAddress(wireNumber(port, universes)) }] : [];
  });
  const [first] = wires;
  if (!first) return [];
  const swIn = [0, 1, 2, 3].map(() => ArtNet.NO_CHANGE);
  const swOut = [...swIn];
  for (const { seen, universe } of wires) {
    const direction = settings.get(seen.number)!.use;
    (direction === 'in' ? swIn : swOut)[seen.index] = ArtNet.PROGRAM | universe;
  }
  return [
    encodeAddress({
      bindIndex: page,
      netSwitch: ArtNet.PROGRAM | first.net,
      subSwitch: ArtNet.PROGRAM | first.sub,
      swIn,
      swOut,
    }),
  ];
}

/** What a push came to: fields that are as planned now, those the node would not take, those no packet sets. */
export const pushVerdict = (before: readonly Drift[], after: readonly Drift[]): PushResult['fields'] => {
  const still = new Map(after.map((one) => [one.field, one]));
  const told = new Set(before.map(({ field }) => field));
  return [...before, ...after.filter(({ field }) => !told.has(field))].map(
    ({ field, what, planned, seen, way, panel }) => {
      const now = still.get(field);
      if (!now) return { what, planned, seen, state: 'done' as const, panel: '' };
      return {
        what,
        planned,
        seen: now.seen,
        state: way === 'panel' ? ('not supported' as const) : ('refused' as const),
        panel,
      };
    },
  );
};

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

/** The plan of a machine bent to what the wire shows of it. */
export function takeTruth(
  records: ShowRecords,
  plan: Machine,
  { address, node }: HeardMachine,
  drift: readonly Drift[],
): Plan {
  const fields = new Set(drift.map(({ field }) => field));
  const main = addressesOf(plan)[0];
  let after = plan;
  let brought: readonly Universe[] = [];
  if (fields.has('address') || fields.has('mask'))
    after = withMainAddress(after, address, (node && maskLength(node.mask)) ?? main?.prefix ?? 8);
  if (node) {
    if (fields.has('name')) after = { ...after, name: node.shortName || after.name };
    if (fields.has('firmware')) after = { ...after, firmware: node.firmware };
    if ([...fields].some((field) => field.startsWith('port ') || field === 'signal lost' || field === 'priority')) {
      const { ports, universes } = portsAsSeen(plan.ports, node, records.universe);
      after = { ...after, ports };
      brought = universes;
    }
  }
  const lines = drift.map(({ what, planned, seen }): PlanLine => ({
    subject: `${plan.name}, ${what.toLowerCase()}`,
    before: planned,
    after: seen,
  }));
  const more = addUniverses(brought);
  return {
    sentence: `Took over how ${plan.name} is set`,
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
