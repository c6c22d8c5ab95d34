/** A universe's way from those who send it to the ports that it leaves by, planned and heard together. */
import type { UniverseReport } from '../contract';
import type { MachineEntry } from '../node';
import type { PortMerge, Source } from '../show';
import { isSentBy } from './sentBy';

export interface PathSender {
  readonly name: string;
  readonly source: Source | undefined;
  readonly heard: boolean;
  readonly own: boolean;
  readonly address: string;
}

/** Planned senders, then those heard that are not planned. */
export function pathSenders(
  planned: readonly Source[],
  report: Pick<UniverseReport, 'streams'> | undefined,
): PathSender[] {
  const live = report?.streams.filter((stream) => !stream.lost) ?? [];
  return [
    ...planned.map((source) => ({
      name: source.name,
      source,
      own: false,
      address: source.address,
      heard: live.some((stream) => !stream.own && isSentBy(stream, source)),
    })),
    ...live
      .filter((stream) => stream.own || !planned.some((source) => isSentBy(stream, source)))
      .map(({ name, address, own }) => ({ name: name || address, source: undefined, own, address, heard: true })),
  ];
}

export interface PathOutlet {
  readonly machine: string;
  readonly machineId: string;
  /** As printed on the box; null for a pixel controller, which takes the universe whole */
  readonly port: number | null;
  /** Null for a pixel controller */
  readonly merge: PortMerge | null;
  /** The port passes signal now, or the controller answers */
  readonly heard: boolean;
}

export const outletText = ({ machine, port }: PathOutlet): string =>
  port === null ? machine : `${machine}, port ${port}`;

/** Planned outputs by the show universe that they carry. */
export function outletsByUniverse(entries: readonly MachineEntry[]): Map<number, PathOutlet[]> {
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
    for (const { use, universe, number, merge } of plan.ports)
      if (use === 'out') put(universe, { ...its, port: number, merge, heard: seen.get(number)?.active ?? false });
    for (let i = 0; plan.controller && i < plan.controller.universes; i += 1)
      put(plan.controller.firstUniverse + i, { ...its, port: null, merge: null, heard: node !== undefined });
  }
  return outlets;
}
