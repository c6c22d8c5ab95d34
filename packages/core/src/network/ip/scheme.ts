/** Plans of addresses: schemes to begin with, and machines filled into their ranges. */
import { ok, refuse, type Result } from '../../base/result';
import { changed, countOf, type Plan, type PlanLine, recordPlan } from '../../show/edit';
import {
  type AddressRange,
  checkRecord,
  isOffNetwork,
  type Machine,
  type MachineKind,
  type Network,
  type ShowRecords,
} from '../../show/records';
import { inNetwork, ipNumber, ipText, maskText, networkOf, usable } from './ipv4';
import { addressesOf, mainAddress, withMainAddress } from './planned';

export interface Scheme {
  readonly name: string;
  readonly about: string;
  readonly network: string;
  readonly prefix: number;
}

export const SCHEMES: readonly Scheme[] = [
  { name: 'Art-Net’s first range', about: 'Where Art-Net devices live by themselves', network: '2.0.0.0', prefix: 8 },
  { name: 'Art-Net’s second range', about: 'The other range of Art-Net devices', network: '10.0.0.0', prefix: 8 },
  { name: 'A small network', about: 'Up to 254 machines', network: '192.168.10.0', prefix: 24 },
  { name: 'Link-local', about: 'What machines choose when nobody tells them', network: '169.254.0.0', prefix: 16 },
];

/** Kinds that belong together in a plan, in its order; the first kinds get the lowest addresses. */
const PARTS: readonly (readonly [label: string, kinds: readonly MachineKind[]])[] = [
  ['Consoles', ['console', 'backup console']],
  ['Media and visualisers', ['media server', 'visualiser']],
  ['Computers', ['computer']],
  ['Panels and desks', ['wall panel', 'DMX desk', 'USB adapter']],
  ['Nodes', ['node']],
  ['Pixel controllers', ['pixel controller']],
  ['Switches', ['switch']],
];

/** The parts of a subnet for each kind, one after the other: tens in a small one, whole hundreds in a large. */
export function rangesByKind(network: string, prefix: number): AddressRange[] {
  const { first, last } = usable(ipNumber(network)!, prefix);
  const room = last - first + 1;
  const step = room >= 2000 ? 256 : Math.max(1, Math.floor(room / PARTS.length));
  const start = networkOf(first, prefix);
  return PARTS.flatMap(([label, kinds], i) => {
    const from = Math.max(first, start + i * step + (step === 256 ? 1 : 0));
    const to = Math.min(last, start + (i + 1) * step - (step === 256 ? 2 : 1));
    return from > to ? [] : [{ label, kinds, placeId: null, first: ipText(from), last: ipText(to) }];
  });
}

const takes = (range: AddressRange, machine: Machine): boolean =>
  (range.kinds.length === 0 || range.kinds.includes(machine.kind)) &&
  (range.placeId === null || range.placeId === machine.placeId);

/** The range of a plan that a machine belongs in. */
export const rangeFor = (network: Network, machine: Machine): AddressRange | undefined =>
  network.ranges.find((range) => takes(range, machine));

const FIRST: readonly MachineKind[] = ['backup console', 'console'];

/** Consoles, their backups, then the others as people would list them. */
const byImportance = (a: Machine, b: Machine): number =>
  FIRST.indexOf(b.kind) - FIRST.indexOf(a.kind) || a.name.localeCompare(b.name, 'en', { numeric: true });

/**
 * Gives machines addresses from a plan's ranges: `all` of them anew, or only those that are `new`
 * (without an address in this plan). An address in use by a machine that keeps it is left out.
 */
export function fillAddresses(records: ShowRecords, network: Network, which: 'all' | 'new'): Result<Plan> {
  const base = ipNumber(network.network)!;
  const inPlan = (machine: Machine) =>
    addressesOf(machine).some(({ number }) => inNetwork(number, base, network.prefix));
  const wanted = records.machine.filter((one) => !isOffNetwork(one.kind) && (which === 'all' || !inPlan(one)));
  if (wanted.length === 0) return refuse('nothing', 'Every machine has an address in this plan already.');
  const filled = new Set(wanted.map(({ id }) => id));
  const taken = new Set(
    records.machine.filter(({ id }) => !filled.has(id)).flatMap((one) => addressesOf(one).map(({ number }) => number)),
  );
  const next = new Map<AddressRange, number>();
  const changes: Plan['changes'][number][] = [];
  const lines: PlanLine[] = [];
  for (const machine of [...wanted].sort(byImportance)) {
    const range = rangeFor(network, machine);
    if (!range)
      return refuse('not-possible', `No range of ${network.name} takes a ${machine.kind}, which ${machine.name} is.`);
    let number = next.get(range) ?? ipNumber(range.first)!;
    const last = ipNumber(range.last)!;
    while (number <= last && taken.has(number)) number += 1;
    if (number > last)
      return refuse(
        'taken',
        `The range ${range.label || range.first} ends at ${range.last}; ${machine.name} finds no room.`,
      );
    next.set(range, number + 1);
    taken.add(number);
    const before = mainAddress(machine);
    const after = withMainAddress(machine, ipText(number), network.prefix);
    const said = `${ipText(number)} / ${maskText(network.prefix)}`;
    if (before === ipText(number) && addressesOf(machine)[0]!.prefix === network.prefix) continue;
    changes.push(changed('machine', machine, after));
    lines.push({ subject: machine.name, before: before === '' ? 'none' : before, after: said });
  }
  if (changes.length === 0) return refuse('nothing', 'Every machine has the address that this plan gives it.');
  return ok({ sentence: `Gave ${countOf(changes.length, 'machine')} addresses by ${network.name}`, changes, lines });
}

/** A range that lies outside the subnet, ends before it begins, or runs into the one before. */
function wrongRange({ network, prefix, ranges }: Network): string | undefined {
  const base = ipNumber(network)!;
  const sorted = [...ranges].sort((a, b) => (ipNumber(a.first) ?? 0) - (ipNumber(b.first) ?? 0));
  for (const [i, { label, first, last }] of sorted.entries()) {
    const [from, to] = [ipNumber(first), ipNumber(last)];
    const name = label || first;
    if (from === undefined || to === undefined) return `The range ${name} needs two addresses.`;
    if (to < from) return `The range ${name} ends before it begins.`;
    if (!inNetwork(from, base, prefix) || !inNetwork(to, base, prefix))
      return `The range ${name} lies outside ${network}/${prefix}.`;
    const before = sorted[i - 1];
    if (before && ipNumber(before.last)! >= from)
      return `The ranges ${before.label || before.first} and ${name} overlap.`;
  }
  return undefined;
}

/** Writes a plan of addresses, new if there was none before; its ranges must lie in it and apart. */
export function putNetwork(before: Network | undefined, network: Network): Result<Plan> {
  const checked = checkRecord('network', network);
  if (!checked.ok) return refuse('not-understood', checked.why);
  const wrong = wrongRange(network);
  if (wrong !== undefined) return refuse('not-understood', wrong);
  return recordPlan('network', before, network, {
    tellers: {
      ranges: (ranges) => ranges.map(({ label, first, last }) => `${label} ${first} to ${last}`.trim()).join(', '),
    },
  });
}
