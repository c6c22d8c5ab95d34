/** A universe's way from those who send it to the ports that it leaves by, planned and heard together. */
import type { UniverseReport } from '../contract';
import type { MachineEntry } from '../node';
import type { Source } from '../show';
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
  readonly label: string;
  /** The port passes signal now */
  readonly heard: boolean;
}

/** Planned outputs by the show universe that they carry. */
export function outletsByUniverse(entries: readonly MachineEntry[]): Map<number, PathOutlet[]> {
  const outlets = new Map<number, PathOutlet[]>();
  for (const { plan, heard } of entries) {
    const seen = new Map((heard && !heard.gone ? heard.node?.ports : undefined)?.map((port) => [port.number, port]));
    for (const { use, universe, number } of plan?.ports ?? []) {
      if (use !== 'out') continue;
      const there = outlets.get(universe) ?? [];
      outlets.set(universe, there);
      there.push({ label: `${plan!.name}, port ${number}`, heard: seen.get(number)?.active ?? false });
    }
  }
  return outlets;
}
