/** What was heard, said and seen, brought into the words of the simulation. */
import { wireKey } from '../../base/address';
import { addressesOf, maskLength, type InterfaceInfo } from '../../network/ip';
import type { MachineEntry, NodeReport } from '../../network/node';
import type { Patch } from '../../rig/patch';
import type { Machine, MachinePort, ShowRecords, Universe } from '../../show/records';
import { wireNumber } from '../../network/machine';
import { NOBODY_ASKED } from './asked';
import { heardStreams, mainOf, type HeardStreams, type StreamsHeard } from './heardStreams';
import { sightingsNow } from './sightings';
import { answersOf } from '../known';
import type { Observed, ObservedNode, ObservedPort } from '../simulate';

/** What of a live report a diagnosis asks. */
export interface DiagnosisHeard extends StreamsHeard {
  readonly listeningSince: number;
  readonly interface: Pick<InterfaceInfo, 'address'> | null;
  readonly artnetInterface: Pick<InterfaceInfo, 'address'> | null;
  readonly listed: readonly number[];
  readonly polled: boolean;
  /** Multicast groups that are needed, and that are joined */
  readonly membership: { readonly wanted: number; readonly joined: number };
}

/** Before it has listened for so long nothing can be said of what is missing, ms. */
const LISTENS_FIRST_MS = 6000;

/** Whether it has listened for too short a time to say what is missing. */
export const isTooEarly = ({ at, listeningSince }: DiagnosisHeard): boolean => at - listeningSince < LISTENS_FIRST_MS;

const portOf = (number: number, seen: NodeReport['ports'][number]): ObservedPort => ({
  number,
  use: seen.disabled ? 'off' : seen.direction,
  protocol: seen.sacn ? 'sacn' : 'artnet',
  wire: seen.portAddress,
  merge: seen.ltp ? 'ltp' : 'htp',
  active: seen.active,
  merging: seen.merging,
});

/** A port that its page does not name is off. */
const offPort = (number: number): ObservedPort => ({
  number,
  use: 'off',
  protocol: '',
  wire: 0,
  merge: '',
  active: false,
  merging: false,
});

/** The ports of a pixel controller by what they take: its pages may come in any order. */
function takenPorts(
  { controller }: Machine,
  node: NodeReport,
  universes: ReadonlyMap<number, Universe>,
): ObservedPort[] {
  const left = [...node.ports];
  const wires = Array.from({ length: controller!.universes }, (_, i) => {
    const universe = controller!.firstUniverse + i;
    return wireNumber({ universe, protocol: universes.get(universe)?.protocol ?? 'artnet' }, universes);
  });
  if (left.length === 0) return [];
  const found = wires.map((wire) => {
    const at = left.findIndex(({ portAddress }) => portAddress === wire);
    return at < 0 ? undefined : left.splice(at, 1)[0];
  });
  return found.map((seen, i) => {
    const its = seen ?? left.shift();
    return its ? portOf(i + 1, its) : offPort(i + 1);
  });
}

/**
 * Whoever asks has all polled every two seconds, and an answer may take one: a box that was silent for longer than this
 * does not answer now.
 */
const UNANSWERED_MS = 4400;

/** What a machine says now; undefined if it says nothing. */
function sayingNow(machine: MachineEntry['heard'], at: number): NodeReport | undefined {
  const node = machine && !machine.gone ? machine.node : undefined;
  return node && at - node.lastSeen <= UNANSWERED_MS ? node : undefined;
}

function nodes(records: ShowRecords, entries: readonly MachineEntry[], at: number): ObservedNode[] {
  const universes = new Map(records.universe.map((one) => [one.number, one]));
  return entries.flatMap(({ plan, heard }): ObservedNode[] => {
    const node = sayingNow(heard, at);
    if (!plan || !node) return [];
    const seen = new Map(node.ports.map((port) => [port.number, port]));
    return [
      {
        id: plan.id,
        address: mainOf(
          addressesOf(plan).map(({ text }) => text),
          heard!.address,
        ),
        firmware: node.firmware,
        failSafe: node.failSafe ?? '',
        priority: node.priority,
        prefix: node.mask === '' ? null : (maskLength(node.mask) ?? null),
        doubled: node.alsoHere.length > 0,
        ports: plan.controller
          ? takenPorts(plan, node, universes)
          : plan.ports.map(({ number }: MachinePort) => {
              const its = seen.get(number);
              return its ? portOf(number, its) : offPort(number);
            }),
      },
    ];
  });
}

export interface ObservedNow extends Observed, Omit<HeardStreams, 'heard'> {
  /** What lies one beside planned sACN universes is listened to as well. */
  readonly besides: boolean;
}

export const nodeAge = (machineId: string): string => `node ${machineId}`;

/** When each box answered last, however long ago. */
const answered = (entries: readonly MachineEntry[]): (readonly [string, number])[] =>
  entries.flatMap(({ plan, heard }) => (plan && heard?.node ? [[nodeAge(plan.id), heard.node.lastSeen] as const] : []));

export function observedNow(
  records: ShowRecords,
  patch: Patch,
  heard: DiagnosisHeard,
  entries: readonly MachineEntry[],
  asked = NOBODY_ASKED,
): ObservedNow {
  const now = heardStreams(records, patch, heard, entries);
  return {
    streams: now.heard,
    settling: now.settling,
    lateHere: now.lateHere,
    besides: heard.membership.joined >= heard.membership.wanted,
    confirmed: new Map([...now.confirmed, ...answered(entries)]),
    nodes: nodes(records, entries, heard.at),
    visualisers: entries.flatMap(({ plan, heard: machine }) => {
      const node = sayingNow(machine, heard.at);
      if (plan?.kind !== 'visualiser' || !node) return [];
      const its = node.ports.filter(({ direction, sacn }) => direction === 'out' && !sacn);
      const keyOf = ({ portAddress }: { portAddress: number }) => wireKey({ protocol: 'artnet', number: portAddress });
      return [
        {
          id: plan.id,
          address: mainOf(
            addressesOf(plan).map(({ text }) => text),
            machine!.address,
          ),
          lists: its.map(keyOf),
          gets: its.filter(({ active }) => active).map(keyOf),
        },
      ];
    }),
    lamps: asked.lamps,
    answers: answersOf(
      [...sightingsNow(records, patch).values()].flatMap(({ changed, sighting }) =>
        changed.length === 0 ? [sighting] : [],
      ),
    ),
  };
}
