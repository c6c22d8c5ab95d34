/** What was heard, said and seen, brought into the words of the simulation. */
import { wireKey } from '../address';
import { lateAfter, linesWith, raggedBecause, sendersOf, type Sender } from '../flow';
import { seenOf } from '../known';
import { maskLength } from '../ip';
import type { MachineEntry, NodeReport } from '../node';
import type { Machine, MachinePort, ShowRecords, Subject, Universe } from '../records';
import { shortNameOf } from '../node';
import { wireNumber } from '../machine';
import type { Answers, Observed, ObservedNode, ObservedPort, ObservedStream } from '../simulate';
import type { StreamReport, UniverseReport } from '../stream';

/** What of a live report a diagnosis asks. */
export interface DiagnosisHeard {
  /** Unix time, ms */
  readonly at: number;
  readonly universes: readonly UniverseReport[];
}

/** Fewer packets a second than this part of what is planned is slow. */
const SLOW = 0.4;
/** A stream is judged by its pace when it has run for so long, ms. */
const JUDGED_AFTER_MS = 1500;

function paceOf(
  stream: StreamReport,
  protocol: UniverseReport['protocol'],
  planned: number,
  at: number,
): ObservedStream['pace'] {
  const age = at - stream.lastSeen;
  const ran = stream.lastSeen - stream.firstSeen;
  if (ran > JUDGED_AFTER_MS && stream.rate1 < planned * SLOW && age < lateAfter(protocol) + 1000) return 'slow';
  return raggedBecause({ ...stream, protocol, age }) === undefined ? 'even' : 'ragged';
}

/** Which sender of the show a stream is of: by its name first, which is its own, then by where it comes from. */
function senderOf(stream: StreamReport, senders: readonly Sender[], machines: readonly Machine[]): string | undefined {
  const named = senders.find(({ name }) => name === stream.name || shortNameOf(name) === stream.name);
  const from = senders.find(({ addresses }) => addresses.includes(stream.address));
  if (named ?? from) return (named ?? from)!.id;
  const machine = machines.find(({ name }) => shortNameOf(name) === stream.name);
  return machine && senders.find(({ id }) => id === machine.id)?.id;
}

function streams(records: ShowRecords, { universes, at }: DiagnosisHeard): ObservedStream[] {
  const senders = sendersOf(records.machine);
  const planned = new Map(records.universe.map((one) => [wireKey({ protocol: one.protocol, number: one.wire }), one]));
  return universes.flatMap(({ key, protocol, streams: all }) =>
    all
      .filter(({ lost, preview, own }) => !lost && !preview && !own)
      .map((stream): ObservedStream => {
        const sender = senderOf(stream, senders, records.machine);
        const its = senders.find(({ id }) => id === sender);
        const universe = planned.get(key)?.number;
        const rate = (its && universe !== undefined && linesWith(its, universe)[0]?.rate) || 20;
        return {
          sender: sender ?? stream.address,
          key,
          address: stream.address,
          priority: protocol === 'sacn' ? stream.priority : 0,
          pace: paceOf(stream, protocol, rate, at),
          waits: stream.waits,
          levels: stream.levels && stream.slotCount > 0,
          slots: stream.slotCount,
          twin: stream.twin,
        };
      }),
  );
}

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

function nodes(records: ShowRecords, entries: readonly MachineEntry[]): ObservedNode[] {
  const universes = new Map(records.universe.map((one) => [one.number, one]));
  return entries.flatMap(({ plan, heard }): ObservedNode[] => {
    const node = heard && !heard.gone ? heard.node : undefined;
    if (!plan || !node) return [];
    const seen = new Map(node.ports.map((port) => [port.number, port]));
    return [
      {
        id: plan.id,
        address: heard!.address,
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

function answers(records: ShowRecords): Answers {
  const revs = new Map(records.machine.map(({ id, name, rev }) => [id, { name, rev }]));
  const found = new Map<string, 'yes' | 'no'>();
  for (const { about, question } of records.sighting) {
    const path = [...(revs.has(about.id) ? [revs.get(about.id)!] : [])];
    const seen = seenOf(records, about, question, path);
    if (seen && seen.changed.length === 0) found.set(questionKey(about, question), seen.answer);
  }
  return found;
}

/** `port machine-1 3 light` */
export const questionKey = ({ kind, id, part }: Subject, question: string): string =>
  [kind, id, part, question].filter(Boolean).join(' ');

export function observedNow(records: ShowRecords, heard: DiagnosisHeard, entries: readonly MachineEntry[]): Observed {
  return {
    streams: streams(records, heard),
    nodes: nodes(records, entries),
    visualisers: entries.flatMap(({ plan, heard: machine }) => {
      const node = machine && !machine.gone ? machine.node : undefined;
      if (plan?.kind !== 'visualiser' || !node) return [];
      const its = node.ports.filter(({ direction, sacn }) => direction === 'out' && !sacn);
      const keyOf = ({ portAddress }: { portAddress: number }) => wireKey({ protocol: 'artnet', number: portAddress });
      return [
        {
          id: plan.id,
          address: machine!.address,
          lists: its.map(keyOf),
          gets: its.filter(({ active }) => active).map(keyOf),
        },
      ];
    }),
    answers: answers(records),
  };
}
