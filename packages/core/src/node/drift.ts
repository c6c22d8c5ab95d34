/** Where a machine's settings differ from its plan, field by field, and how each could be set. */
import { formatWire } from '../address';
import type { FailSafe, NodePortReport, NodeReport } from '../contract';
import { addressesOf, maskLength, maskText } from '../ip';
import { MERGE_WORDS, USE_WORDS, carriedBy, lossText, shownBy, wireNumber } from '../machine';
import type { Machine, MachinePort, Model, Universe } from '../show';
import type { HeardMachine } from './match';

/** By which packet a field is set; `panel`: by hand at the box. */
export type DriftWay = 'address' | 'input' | 'ip' | 'panel';

export interface Drift {
  /** Stays the same while the field does: `port 2 merge` */
  readonly field: string;
  /** Of the port that the field is of; null for one of the whole machine */
  readonly port: number | null;
  /** In words: “Port 2, merge” */
  readonly what: string;
  readonly planned: string;
  readonly seen: string;
  readonly way: DriftWay;
  /** What to set at the front panel, should the protocol not do it */
  readonly panel: string;
}

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

const FAIL_WORDS: Readonly<Record<FailSafe, string>> = {
  hold: 'holds for ever',
  black: 'black',
  full: 'full',
  look: 'stored look',
};

type Universes = ReadonlyMap<number, Universe>;

function* portDrift(
  port: MachinePort,
  seen: NodePortReport | undefined,
  node: NodeReport,
  model: Model | undefined,
  universes: Universes,
): Generator<Drift> {
  const at = (part: string) => ({
    field: `port ${port.number} ${part}`,
    port: port.number,
    what: `Port ${port.number}, ${part}`,
  });
  const use = seen ? (seen.disabled ? 'off' : seen.direction) : 'off';
  if (port.use === 'fixed') return;
  if (use !== port.use) {
    const disables = seen?.direction === 'in' && port.use !== 'out';
    yield {
      ...at('direction'),
      planned: USE_WORDS[port.use],
      seen: USE_WORDS[use],
      way: disables ? 'input' : seen && port.use !== 'off' && node.directionSwitch ? 'address' : 'panel',
      panel: `Set port ${port.number} to ${USE_WORDS[port.use]} at the front panel.`,
    };
  }
  if (port.use === 'off' || !seen) return;
  const protocol = seen.sacn ? 'sacn' : 'artnet';
  if (node.sacnCapable && protocol !== port.protocol)
    yield {
      ...at('protocol'),
      planned: port.protocol === 'sacn' ? 'sACN' : 'Art-Net',
      seen: protocol === 'sacn' ? 'sACN' : 'Art-Net',
      way: 'address',
      panel: `Set port ${port.number} to ${port.protocol === 'sacn' ? 'sACN' : 'Art-Net'} at the front panel.`,
    };
  const wire = wireNumber(port, universes);
  if (wire !== seen.portAddress) {
    const shown = shownBy(port, wire, model?.base ?? 0);
    yield {
      ...at('universe'),
      planned: formatWire({ protocol: port.protocol, number: wire }),
      seen: formatWire({ protocol: port.protocol, number: seen.portAddress }),
      way: node.panelOnly || wire > 0x7fff ? 'panel' : 'address',
      panel: `Set port ${port.number} to ${shown} at the front panel.`,
    };
  }
  if (port.use !== 'out') return;
  const merge = seen.ltp ? 'ltp' : 'htp';
  // Priority is sACN's own rule and “none” a matter of the box: Art-Net speaks of HTP and LTP only.
  if ((port.merge === 'htp' || port.merge === 'ltp') && merge !== port.merge)
    yield {
      ...at('merge'),
      planned: MERGE_WORDS[port.merge],
      seen: MERGE_WORDS[merge],
      way: 'address',
      panel: `Set port ${port.number} to “${MERGE_WORDS[port.merge]}” at the front panel.`,
    };
  if (node.rdmSwitch && seen.rdm !== port.rdm)
    yield {
      ...at('RDM'),
      planned: port.rdm ? 'on' : 'off',
      seen: seen.rdm ? 'on' : 'off',
      way: 'address',
      panel: `Switch RDM of port ${port.number} ${port.rdm ? 'on' : 'off'} at the front panel.`,
    };
}

/** The one loss of signal of all outputs, as far as Art-Net can tell; undefined if they differ. */
export function commonFailSafe(ports: readonly MachinePort[]): FailSafe | undefined {
  const kinds = new Set(ports.filter(({ use }) => use === 'out').map(({ loss }) => failSafeOf(loss)));
  return kinds.size === 1 ? [...kinds][0] : undefined;
}

function* nodeDrift(plan: Machine, model: Model | undefined, universes: Universes, node: NodeReport): Generator<Drift> {
  const short = shortNameOf(plan.name);
  if (node.shortName !== short)
    yield {
      field: 'name',
      port: null,
      what: 'Name',
      planned: short,
      seen: node.shortName,
      way: 'address',
      panel: `Name it “${short}” at the front panel.`,
    };
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
    const loss = plan.ports.find(({ use }) => use === 'out')!.loss;
    yield {
      field: 'signal lost',
      port: null,
      what: 'Signal lost',
      planned: FAIL_WORDS[fail],
      seen: FAIL_WORDS[node.failSafe],
      way: 'address',
      panel: `Set “${lossText(loss)}” for lost signal at the front panel.`,
    };
  }
  const sends = plan.ports.find(({ use }) => use === 'in');
  if (sends && sends.priority !== node.priority)
    yield {
      field: 'priority',
      port: null,
      what: 'Priority of inputs',
      planned: String(sends.priority),
      seen: String(node.priority),
      way: 'address',
      panel: `Set the sACN priority to ${sends.priority} at the front panel.`,
    };
  if (plan.firmware !== '' && plan.firmware !== node.firmware)
    yield {
      field: 'firmware',
      port: null,
      what: 'Firmware',
      planned: plan.firmware,
      seen: node.firmware,
      way: 'panel',
      panel: `Bring its firmware to ${plan.firmware} with its maker’s program.`,
    };
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
    drift.push({
      field: 'address',
      port: null,
      what: 'Address',
      planned: known[0]!.text,
      seen: address,
      way: node ? way : 'panel',
      panel: `Set the address ${known[0]!.text} at the machine itself.`,
    });
  // Only a node that answers IpProg tells how it came by its address.
  if (node && node.mask !== '' && plan.interfaces[0]?.addresses[0] && node.dhcp !== served)
    drift.push({
      field: 'DHCP',
      port: null,
      what: 'DHCP',
      planned: served ? 'on' : 'off',
      seen: node.dhcp ? 'on' : 'off',
      way,
      panel: `Switch DHCP ${served ? 'on' : 'off'} at the machine itself.`,
    });
  const here = served ? undefined : (known.find(({ text }) => text === address) ?? known[0]);
  if (here && node && node.mask !== '' && maskLength(node.mask) !== here.prefix)
    drift.push({
      field: 'mask',
      port: null,
      what: 'Mask',
      planned: maskText(here.prefix),
      seen: node.mask,
      way,
      panel: `Set the mask ${maskText(here.prefix)} at the machine itself.`,
    });
  return drift;
}
