/** Planned and heard machines in one list, each with the word that says how it stands. */
import type { Heard, HeardMachine, NodeReport } from './nodeReport';
import type { UniverseReport } from '../../signal/stream';
import { addressesOf, mainAddress } from '../ip';
import {
  isOffNetwork,
  type Machine,
  type MachineKind,
  type Model,
  type ShowRecords,
  type Universe,
} from '../../show/records';
import { type Drift, driftOf, shortNameOf } from './drift';

export type MachineState = 'matched' | 'drifted' | 'missing' | 'stranger' | 'unseen';

export interface MachineEntry {
  /** The plan's id; of a stranger its address, or its hardware address where two have one address */
  readonly key: string;
  readonly name: string;
  readonly address: string;
  readonly plan: Machine | undefined;
  readonly model: Model | undefined;
  readonly heard: HeardMachine | undefined;
  /** How the two were brought together */
  readonly by: 'hardware address' | 'name and address' | 'address' | 'name' | undefined;
  /** `unseen`: a machine that speaks no network protocol, so nobody can hear it. */
  readonly state: MachineState;
  readonly drift: readonly Drift[];
}

/** Everybody on the network, by address; what this computer sends itself is left out. */
export function heardMachines({ nodes, discovered, universes }: Heard): HeardMachine[] {
  const heard = new Map<string, { -readonly [K in keyof HeardMachine]: HeardMachine[K] } & { sends: number[] }>();
  const at = (address: string, name: string, firstSeen: number, lastSeen: number, gone: boolean) => {
    let one = heard.get(address);
    if (!one) {
      one = { address, name, node: undefined, sends: [], announces: 0, gone, firstSeen, lastSeen };
      heard.set(address, one);
    }
    one.firstSeen = Math.min(one.firstSeen, firstSeen);
    one.lastSeen = Math.max(one.lastSeen, lastSeen);
    one.gone &&= gone;
    one.name ||= name;
    return one;
  };
  for (const node of nodes) {
    const { address, mac, shortName, firstSeen, lastSeen, gone } = node;
    // Another box that answers at the same address is a machine of its own.
    if (heard.get(address)?.node)
      heard.set(`${address} ${mac}`, {
        address,
        name: shortName,
        node,
        sends: [],
        announces: 0,
        gone,
        firstSeen,
        lastSeen,
      });
    else at(address, shortName, firstSeen, lastSeen, gone).node = node;
  }
  const stream = ({ key, streams }: UniverseReport) => {
    for (const { own, lost, address, name, firstSeen, lastSeen } of streams) {
      if (own || lost) continue;
      at(address, name, firstSeen, lastSeen, false).sends.push(key);
    }
  };
  universes.forEach(stream);
  for (const { address, name, count, lastSeen } of discovered)
    if (heard.has(address)) at(address, name, lastSeen, lastSeen, false).announces = count;
  return [...heard.values()];
}

/** Machines that speak no lighting protocol: nobody will ever hear them. */
const isSilent = (kind: MachineKind): boolean => kind === 'switch' || isOffNetwork(kind);

interface KnownDrift {
  readonly plan: Machine;
  readonly model: Model | undefined;
  readonly universes: readonly Universe[];
  readonly address: string;
  readonly drift: readonly Drift[];
}

/** By the node's own report, which stays the same object as long as nothing in it changes. */
const knownDrifts = new WeakMap<NodeReport, KnownDrift>();

function knownDrift(
  plan: Machine,
  model: Model | undefined,
  universes: readonly Universe[],
  byNumber: ReadonlyMap<number, Universe>,
  heard: HeardMachine,
): readonly Drift[] {
  const { node, address } = heard;
  const known = node && knownDrifts.get(node);
  if (
    known &&
    known.plan === plan &&
    known.model === model &&
    known.universes === universes &&
    known.address === address
  )
    return known.drift;
  const drift = driftOf(plan, model, byNumber, heard);
  if (node) knownDrifts.set(node, { plan, model, universes, address, drift });
  return drift;
}

const numerically = new Intl.Collator('en', { numeric: true }).compare;

/**
 * Brings plan and wire together: first by hardware address, then by name and address, then by
 * address, then by a name that only one has. In time linear in both.
 */
export function matchMachines(
  records: Pick<ShowRecords, 'machine' | 'model' | 'universe'>,
  heard: readonly HeardMachine[],
): MachineEntry[] {
  const models = new Map(records.model.map((one) => [one.id, one]));
  const universes = new Map(records.universe.map((one) => [one.number, one]));
  const free = new Set(heard);
  const found = new Map<Machine, { heard: HeardMachine; by: NonNullable<MachineEntry['by']> }>();
  const pass = (
    by: NonNullable<MachineEntry['by']>,
    heardKey: (one: HeardMachine) => string,
    keys: (machine: Machine) => string[],
    better: (a: HeardMachine, b: HeardMachine) => HeardMachine | null = () => null,
  ) => {
    const byKey = new Map<string, HeardMachine | null>();
    for (const one of free) {
      const key = heardKey(one);
      if (key === '') continue;
      const other = byKey.get(key);
      byKey.set(key, other === undefined ? one : other && better(other, one));
    }
    for (const machine of records.machine) {
      if (found.has(machine)) continue;
      for (const key of keys(machine)) {
        const one = byKey.get(key);
        if (!one || !free.has(one)) continue;
        found.set(machine, { heard: one, by });
        free.delete(one);
        break;
      }
    }
  };
  const nameAndAddress = (name: string, address: string) => `${name}\n${address}`;
  const known = new Map(records.machine.map((one) => [one, addressesOf(one).map(({ text }) => text)]));
  pass(
    'hardware address',
    ({ node }) => node?.mac ?? '',
    ({ interfaces }) => interfaces.map(({ mac }) => mac).filter((mac) => mac !== ''),
    // Parts of one product, or two that claim one hardware address: the one that speaks for all, or was heard last.
    (a, b) => ((Number(a.node!.partOf !== '') - Number(b.node!.partOf !== '') || b.lastSeen - a.lastSeen) > 0 ? b : a),
  );
  pass(
    'name and address',
    ({ name, address }) => nameAndAddress(name, address),
    (machine) => known.get(machine)!.map((address) => nameAndAddress(shortNameOf(machine.name), address)),
  );
  // A machine whose hardware address is planned is nobody else's, whatever the address.
  const unmarked = (machine: Machine) => machine.interfaces.every(({ mac }) => mac === '');
  pass(
    'address',
    ({ address }) => address,
    (machine) => (unmarked(machine) ? known.get(machine)! : []),
    // Of two boxes at one address the one that was there first.
    (a, b) => (b.firstSeen < a.firstSeen ? b : a),
  );
  pass(
    'name',
    ({ name }) => name,
    (machine) => (unmarked(machine) ? [shortNameOf(machine.name), machine.name] : []),
  );

  const planned = records.machine.map((plan): MachineEntry => {
    const match = found.get(plan);
    const model = plan.modelId === null ? undefined : models.get(plan.modelId);
    const present = match && !match.heard.gone;
    const drift = present ? knownDrift(plan, model, records.universe, universes, match.heard) : [];
    return {
      key: plan.id,
      name: plan.name,
      address: mainAddress(plan) || (match?.heard.address ?? ''),
      plan,
      model,
      heard: match?.heard,
      by: match?.by,
      state: present ? (drift.length > 0 ? 'drifted' : 'matched') : isSilent(plan.kind) ? 'unseen' : 'missing',
      drift,
    };
  });
  const keys = new Set<string>();
  /** Its address; its hardware address where another stranger has that. */
  const strangerKey = ({ address, node }: HeardMachine): string => {
    const key = keys.has(address) && node ? node.mac : address;
    keys.add(key);
    return key;
  };
  const strangers = [...free]
    .filter(({ gone }) => !gone)
    .map((one): MachineEntry => ({
      key: strangerKey(one),
      name: one.name || one.address,
      address: one.address,
      plan: undefined,
      model: undefined,
      heard: one,
      by: undefined,
      state: 'stranger',
      drift: [],
    }));
  return [...planned, ...strangers].sort(
    (a, b) => numerically(a.address || '~', b.address || '~') || numerically(a.name, b.name),
  );
}
