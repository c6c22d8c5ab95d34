/** A universe's way from those who send it to the ports that it leaves by, planned and heard together. */
import type { UniverseReport } from '../../signal/stream';
import { formatWire, wireKey, type WireUniverse } from '../../base/address';
import type { MachineEntry, NodePortReport } from '../node';
import type { PortMerge, Universe } from '../../show/records';
import type { Sender } from './senders';
import { isSentBy } from './sentBy';
import { linesWith, priorityOf } from './sends';

export interface PathSender {
  readonly name: string;
  readonly sender: Sender | undefined;
  readonly heard: boolean;
  readonly own: boolean;
  readonly address: string;
  /** At which it sends or is planned to send, sACN; null for Art-Net, which has none */
  readonly priority: number | null;
  /** It says a priority for each slot beside */
  readonly slotPriority: boolean;
  /** Planned to send to certain addresses only: that it is not heard here says nothing */
  readonly unicast: boolean;
}

function isUnicast(sender: Sender, universe: number): boolean {
  const lines = linesWith(sender, universe);
  return lines.length > 0 && lines.every(({ delivery }) => delivery === 'unicast');
}

/** Planned senders of a show universe, then those heard that are not planned. */
export function pathSenders(
  { number, protocol }: Pick<Universe, 'number' | 'protocol'>,
  planned: readonly Sender[],
  report: Pick<UniverseReport, 'streams'> | undefined,
): PathSender[] {
  const live = report?.streams.filter((stream) => !stream.lost) ?? [];
  const at = (priority: number) => (protocol === 'sacn' ? priority : null);
  return [
    ...planned.map((sender) => {
      const stream = live.find((one) => !one.own && isSentBy(one, sender));
      return {
        name: sender.name,
        sender,
        own: false,
        address: sender.addresses[0] ?? '',
        heard: stream !== undefined,
        unicast: isUnicast(sender, number),
        priority: at(stream?.priority ?? priorityOf(sender, number)),
        slotPriority: stream?.slotPriority ?? linesWith(sender, number).some(({ slotPriority }) => slotPriority),
      };
    }),
    ...live
      .filter((stream) => stream.own || !planned.some((sender) => isSentBy(stream, sender)))
      .map(({ name, address, own, priority, slotPriority }) => ({
        name: name || address,
        sender: undefined,
        own,
        address,
        heard: true,
        unicast: false,
        priority: at(priority),
        slotPriority,
      })),
  ];
}

export interface PathOutlet {
  readonly machine: string;
  readonly machineId: string;
  /** As printed on the box; null for a pixel controller, which takes the universe whole */
  readonly port: number | null;
  /** Null for a pixel controller */
  readonly merge: PortMerge | null;
  /** Its box says that it is set to this universe, and that signal passes */
  readonly heard: boolean;
  /** Whether its box says anything of it */
  readonly known: 'said' | 'not known';
  /** It says that it merges several senders. */
  readonly merging: boolean;
  /** What its box says, in a few words */
  readonly says: string;
}

export const outletText = ({ machine, port }: PathOutlet): string =>
  port === null ? machine : `${machine}, port ${port}`;

export type OutletSays = Pick<PathOutlet, 'heard' | 'known' | 'merging' | 'says'>;

const no = (says: string, known: OutletSays['known'] = 'said'): OutletSays => ({
  heard: false,
  known,
  merging: false,
  says,
});

type SaidPort = Pick<NodePortReport, 'disabled' | 'direction' | 'sacn' | 'portAddress' | 'active' | 'merging'>;

/** What a box says of an output that is planned to carry a universe: Flow, its picture and Why? say the same. */
export const outletSays = (port: SaidPort | undefined, wire: WireUniverse): OutletSays => {
  if (!port || port.disabled) return no('is off');
  if (port.direction !== 'out') return no('is an input');
  const set: WireUniverse = { protocol: port.sacn ? 'sacn' : 'artnet', number: port.portAddress };
  if (wireKey(set) !== wireKey(wire)) return no(`is set to ${formatWire(set)}`);
  if (!port.active) return no('nothing comes in there');
  return { heard: true, known: 'said', merging: port.merging, says: port.merging ? 'sends, merging' : 'sends' };
};

/** Planned outputs by the show universe that they carry, each with what its box says of it. */
export function outletsByUniverse(
  entries: readonly MachineEntry[],
  universes: readonly Universe[],
): Map<number, PathOutlet[]> {
  const planned = new Map(universes.map((one) => [one.number, one]));
  const wireOf = (universe: number): WireUniverse | undefined => {
    const one = planned.get(universe);
    return one && { protocol: one.protocol, number: one.wire };
  };
  const outlets = new Map<number, PathOutlet[]>();
  const put = (universe: number, outlet: PathOutlet) => {
    const there = outlets.get(universe);
    if (there) there.push(outlet);
    else outlets.set(universe, [outlet]);
  };
  for (const { plan, heard } of entries) {
    if (!plan) continue;
    const its = { machine: plan.name, machineId: plan.id };
    const node = heard && !heard.gone ? heard.node : undefined;
    const seen = new Map(node?.ports.map((port) => [port.number, port]));
    const away = no('does not answer', 'not known');
    const says = (port: NodePortReport | undefined, universe: number): OutletSays => {
      const wire = wireOf(universe);
      return node && wire ? outletSays(port, wire) : away;
    };
    for (const { use, universe, number, merge } of plan.ports)
      if (use === 'out') put(universe, { ...its, port: number, merge, ...says(seen.get(number), universe) });
    for (let i = 0; plan.controller && i < plan.controller.universes; i += 1) {
      const universe = plan.controller.firstUniverse + i;
      const wire = wireOf(universe);
      const taken = node?.ports.find(
        ({ direction, portAddress }) => direction === 'out' && portAddress === wire?.number,
      );
      // A controller that lists no universes says nothing of them.
      const silent = no('does not say what it takes', 'not known');
      put(universe, {
        ...its,
        port: null,
        merge: null,
        ...(node?.ports.length === 0 ? silent : says(taken, universe)),
      });
    }
  }
  return outlets;
}
