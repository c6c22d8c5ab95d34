/** What stands near something that does not work: its path, as far as a fault of it could lie. */
import { sendersOf, universesOf } from '../../network/flow';
import { lastChannel, type Patch, universesOfLamp } from '../../rig/patch';
import type { Link, ShowRecords, Subject } from '../../show/records';
import { isOutlet } from '../simulate';

export interface Near {
  readonly subject: Subject;
  /** Show universes that its path carries */
  readonly universes: readonly number[];
  /** Wire keys on which these travel, or are planned to be sent */
  readonly wires: ReadonlySet<number>;
  /** Ids of machines */
  readonly senders: ReadonlySet<string>;
  readonly nodes: ReadonlySet<string>;
  readonly visualisers: ReadonlySet<string>;
  readonly lamps: readonly string[];
  /** The port that is meant; null for all that carry the universes */
  readonly port: { readonly nodeId: string; readonly number: number } | null;
  /** Wire keys by sender, and ports, that alone are looked at; absent for all */
  readonly keys?: ReadonlyMap<string, ReadonlySet<number>>;
  readonly ports?: ReadonlySet<string>;
  /** Of what something should be heard at all: `sacn`, `artnet`, `nodes`; absent for all */
  readonly hears?: ReadonlySet<string>;
  /** Wire keys on which something began or ended just now */
  readonly settling: ReadonlySet<number>;
}

const universesOfLink = ({ lines }: Link): number[] =>
  lines.flatMap(({ from, count }) => Array.from({ length: count }, (_, i) => from + i));

function universesNear({ kind, id, part }: Subject, records: ShowRecords, patch: Patch): number[] {
  switch (kind) {
    case 'lamp': {
      const patched = patch.lamp(id);
      return patched ? universesOfLamp(patched.lamp) : [];
    }
    case 'universe':
    case 'slot':
    case 'stream':
      return [Number(id)];
    case 'link':
      return records.link.filter((one) => one.id === id).flatMap(universesOfLink);
    case 'port':
    case 'machine':
    case 'interface': {
      const machine = records.machine.find((one) => one.id === id);
      if (!machine) return [];
      const { ports, controller, sends } = machine;
      const linked = records.link.filter((one) => one.visualiserId === id);
      const sender = sends && sendersOf(records.machine).find((one) => one.id === id);
      return [
        ...ports
          .filter(({ use, number }) => (use === 'out' || use === 'in') && (kind !== 'port' || String(number) === part))
          .map(({ universe }) => universe),
        ...Array.from({ length: controller?.universes ?? 0 }, (_, i) => controller!.firstUniverse + i).filter(
          (_, i) => kind !== 'port' || String(i + 1) === part,
        ),
        ...(sender ? universesOf(sender) : []),
        ...linked.flatMap(universesOfLink),
      ];
    }
  }
}

/** Slots on which lamps begin that a person would look at for a universe. */
const MOST_LAMPS = 4;

/** Ids of what stands on the path; where it runs on the wire the world tells. */
export function nearOf(subject: Subject, records: ShowRecords, patch: Patch): Omit<Near, 'wires' | 'settling'> {
  const universes = [...new Set(universesNear(subject, records, patch))];
  const here = new Set(universes);
  const link = subject.kind === 'link' ? records.link.find(({ id }) => id === subject.id) : undefined;
  const its = subject.kind === 'machine' || subject.kind === 'port' || subject.kind === 'interface' ? subject.id : '';
  const nodes = records.machine.filter(
    (machine) =>
      machine.id === its ||
      (isOutlet(machine) &&
        (machine.ports.some(({ use, universe }) => (use === 'out' || use === 'in') && here.has(universe)) ||
          universes.some(
            (universe) =>
              machine.controller !== null &&
              universe >= machine.controller.firstUniverse &&
              universe < machine.controller.firstUniverse + machine.controller.universes,
          ))),
  );
  const senders = sendersOf(records.machine).filter(
    (sender) =>
      sender.id === its || (link ? sender.id === link.senderId : universesOf(sender).some((one) => here.has(one))),
  );
  const slot = subject.kind === 'slot' ? Number(subject.part) : undefined;
  const lamps =
    subject.kind === 'lamp'
      ? [subject.id]
      : universes
          .slice(0, 1)
          .flatMap((universe) => patch.universe(universe))
          .filter((span) => slot === undefined || (span.channel <= slot && slot <= lastChannel(span)))
          .map(({ patched }) => patched)
          .filter(({ run }) => run === undefined)
          .slice(0, MOST_LAMPS)
          .map(({ lamp }) => lamp.id);
  return {
    subject,
    universes,
    senders: new Set(senders.map(({ id }) => id)),
    nodes: new Set(link ? [] : nodes.map(({ id }) => id)),
    visualisers: new Set([...(link ? [link.visualiserId] : []), ...(its ? [its] : [])]),
    lamps: [...new Set(lamps)],
    port: subject.kind === 'port' ? { nodeId: subject.id, number: Number(subject.part) } : null,
  };
}
