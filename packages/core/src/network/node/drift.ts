/** Where a machine's settings differ from its plan, and by which packet each could be set. What it is in words is `driftWords`. */
import type { Protocol, WireUniverse } from '../../base/address';
import { addressesOf, maskLength, maskText } from '../ip';
import { carriedBy, shownBy, wireNumber } from '../machine';
import type { LossOfSignal, Machine, MachinePort, Model, PortMerge, PortUse, Universe } from '../../show/records';
import type { FailSafe, HeardMachine, NodePortReport, NodeReport } from './nodeReport';

/** By which packet a field is set; `panel`: by hand at the box. */
export type DriftWay = 'address' | 'input' | 'ip' | 'panel';

/** What differs: planned and seen as data. `port` is counted through all pages, from 1. */
export type Difference =
  | { readonly kind: 'direction'; readonly port: number; readonly planned: PortUse; readonly seen: PortUse }
  | { readonly kind: 'protocol'; readonly port: number; readonly planned: Protocol; readonly seen: Protocol }
  | {
      readonly kind: 'universe';
      readonly port: number;
      readonly planned: WireUniverse;
      readonly seen: WireUniverse;
      /** The planned one as the box's display shows it */
      readonly shown: string;
    }
  | { readonly kind: 'merge'; readonly port: number; readonly planned: PortMerge; readonly seen: PortMerge }
  | { readonly kind: 'rdm'; readonly port: number; readonly planned: boolean; readonly seen: boolean }
  | { readonly kind: 'name'; readonly planned: string; readonly seen: string }
  | {
      readonly kind: 'signal lost';
      readonly planned: FailSafe;
      readonly seen: FailSafe;
      /** What the plan says more of it than Art-Net can */
      readonly loss: LossOfSignal;
    }
  | { readonly kind: 'priority'; readonly planned: number; readonly seen: number }
  | { readonly kind: 'firmware'; readonly planned: string; readonly seen: string }
  | { readonly kind: 'address'; readonly planned: string; readonly seen: string }
  | { readonly kind: 'dhcp'; readonly planned: boolean; readonly seen: boolean }
  | { readonly kind: 'mask'; readonly planned: string; readonly seen: string };

export type Drift = Difference & { readonly way: DriftWay };

/** The port that a difference is of; null for one of the whole machine. */
export const portOf = (drift: Difference): number | null => ('port' in drift ? drift.port : null);

/** Stays the same while the field does: `2 merge`, `name` */
export const driftKey = (drift: Difference): string => `${portOf(drift) ?? ''} ${drift.kind}`.trim();

const encoder = new TextEncoder();

/** A short name as it fits into a poll reply: 17 bytes of UTF-8. */
export function shortNameOf(name: string): string {
  // Three bytes at most for each of five characters: no need to count.
  if (name.length <= 5 || /^[ -~]{0,17}$/.test(name)) return name;
  let short = '';
  for (const character of name) {
    if (encoder.encode(short + character).length > 17) break;
    short += character;
  }
  return short;
}

/** What a loss of signal comes to in Art-Net, which knows no times. */
export const failSafeOf = ({ kind }: MachinePort['loss']): FailSafe =>
  kind === 'hold-black' || kind === 'fade' ? 'black' : kind;

type Universes = ReadonlyMap<number, Universe>;

function* portDrift(
  port: MachinePort,
  seen: NodePortReport | undefined,
  node: NodeReport,
  model: Model | undefined,
  universes: Universes,
): Generator<Drift> {
  const { number } = port;
  const use = seen ? (seen.disabled ? 'off' : seen.direction) : 'off';
  if (port.use === 'fixed') return;
  if (use !== port.use) {
    const disables = seen?.direction === 'in' && port.use !== 'out';
    const way = disables ? 'input' : seen && port.use !== 'off' && node.directionSwitch ? 'address' : 'panel';
    yield { kind: 'direction', port: number, planned: port.use, seen: use, way };
  }
  if (port.use === 'off' || !seen) return;
  const protocol = seen.sacn ? 'sacn' : 'artnet';
  if (node.sacnCapable && protocol !== port.protocol)
    yield { kind: 'protocol', port: number, planned: port.protocol, seen: protocol, way: 'address' };
  const wire = wireNumber(port, universes);
  if (wire !== seen.portAddress)
    yield {
      kind: 'universe',
      port: number,
      planned: { protocol: port.protocol, number: wire },
      seen: { protocol: port.protocol, number: seen.portAddress },
      shown: shownBy(port, wire, model?.base ?? 0),
      way: node.panelOnly || wire > 0x7fff ? 'panel' : 'address',
    };
  if (port.use !== 'out') return;
  const merge = seen.ltp ? 'ltp' : 'htp';
  // Priority is sACN's own rule and “none” a matter of the box: Art-Net speaks of HTP and LTP only.
  if ((port.merge === 'htp' || port.merge === 'ltp') && merge !== port.merge)
    yield { kind: 'merge', port: number, planned: port.merge, seen: merge, way: 'address' };
  if (node.rdmSwitch && seen.rdm !== port.rdm)
    yield { kind: 'rdm', port: number, planned: port.rdm, seen: seen.rdm, way: 'address' };
}

/** The one loss of signal of all outputs, as far as Art-Net can tell; undefined if they differ. */
export function commonFailSafe(ports: readonly MachinePort[]): FailSafe | undefined {
  const kinds = new Set(ports.filter(({ use }) => use === 'out').map(({ loss }) => failSafeOf(loss)));
  return kinds.size === 1 ? [...kinds][0] : undefined;
}

function* nodeDrift(plan: Machine, model: Model | undefined, universes: Universes, node: NodeReport): Generator<Drift> {
  const short = shortNameOf(plan.name);
  if (node.shortName !== short) yield { kind: 'name', planned: short, seen: node.shortName, way: 'address' };
  const numbered = new Map(node.ports.map((port) => [port.number, port]));
  for (const port of plan.ports)
    yield* portDrift(
      port.copyOf === null ? port : { ...carriedBy(port, plan.ports), number: port.number },
      numbered.get(port.number),
      node,
      model,
      universes,
    );
  const fail = commonFailSafe(plan.ports);
  if (node.failSafe !== null && fail !== undefined && node.failSafe !== fail) {
    const { loss } = plan.ports.find(({ use }) => use === 'out')!;
    yield { kind: 'signal lost', planned: fail, seen: node.failSafe, loss, way: 'address' };
  }
  const sends = plan.ports.find(({ use }) => use === 'in');
  if (sends && sends.priority !== node.priority)
    yield { kind: 'priority', planned: sends.priority, seen: node.priority, way: 'address' };
  if (plan.firmware !== '' && plan.firmware !== node.firmware)
    yield { kind: 'firmware', planned: plan.firmware, seen: node.firmware, way: 'panel' };
}

/** Every field in which what was heard differs from the plan. What cannot be seen on the wire is not here. */
export function driftOf(
  plan: Machine,
  model: Model | undefined,
  universes: Universes,
  { address, node }: HeardMachine,
): Drift[] {
  const drift: Drift[] = node ? [...nodeDrift(plan, model, universes, node)] : [];
  const known = addressesOf(plan);
  const served = plan.interfaces[0]?.addresses[0]?.way === 'dhcp';
  const way = model && !model.ipProg ? 'panel' : 'ip';
  // Who gets its address from a server has whichever it was given.
  if (known.length > 0 && !served && !known.some(({ text }) => text === address))
    drift.push({ kind: 'address', planned: known[0]!.text, seen: address, way: node ? way : 'panel' });
  // Only a node that answers IpProg tells how it came by its address.
  if (node && node.mask !== '' && plan.interfaces[0]?.addresses[0] && node.dhcp !== served)
    drift.push({ kind: 'dhcp', planned: served, seen: node.dhcp, way });
  const here = served ? undefined : (known.find(({ text }) => text === address) ?? known[0]);
  if (here && node && node.mask !== '' && maskLength(node.mask) !== here.prefix)
    drift.push({ kind: 'mask', planned: maskText(here.prefix), seen: node.mask, way });
  return drift;
}
