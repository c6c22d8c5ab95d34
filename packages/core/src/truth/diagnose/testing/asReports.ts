/** An observed world as the live report and the machine list of a running Taxiarch would tell of it. */
import { fromWireKey } from '../../../base/address';
import type { HeardMachine, MachineEntry, NodePortReport, NodeReport } from '../../../network/node';
import type { ShowRecords } from '../../../show/records';
import { type DiagnosisHeard } from '../heard';
import { isOwn } from '../heardStreams';
import type { Observed, ObservedNode, ObservedStream, ObservedVisualiser } from '../../simulate';
import type { StreamReport, UniverseReport } from '../../../signal/stream';

/** Unix ms; everything has run for a minute by then. */
export const AT = 10_000_000;

const streamReport = (one: ObservedStream, name: string): StreamReport =>
  ({
    mark: 0,
    name,
    address: one.address,
    cid: one.sender,
    priority: one.priority,
    preview: false,
    terminated: false,
    lost: false,
    own: isOwn(one.sender),
    levels: one.levels,
    twin: one.twin,
    startCodes: [],
    waits: one.waits,
    syncAddress: one.waits ? 7000 : 0,
    slotCount: one.slots,
    rate1: one.effect === 'discarded' ? 0 : one.pace === 'slow' ? 1 : 40,
    discarded1: one.effect === 'discarded' ? 40 : 0,
    slotPriority: one.effect === 'nothing' || one.effect === 'some',
    offers: one.offers ?? (one.effect === 'all' ? [{ from: 1, to: 512 }] : []),
    rate10: one.pace === 'slow' ? 1 : 40,
    jitter: 1,
    missing: 0,
    missing10: one.pace === 'ragged' ? 90 : 0,
    repeats: 0,
    late: 0,
    firstSeen: AT - 60_000,
    lastSeen: AT - 20,
  }) as unknown as StreamReport;

const universesOf = (streams: readonly ObservedStream[], { machine }: ShowRecords): UniverseReport[] => {
  const byKey = new Map<number, StreamReport[]>();
  for (const one of streams) {
    const name = machine.find(({ id }) => id === (one.borrows?.id ?? one.sender))?.name ?? '';
    byKey.set(one.key, [...(byKey.get(one.key) ?? []), streamReport(one, name)]);
  }
  return [...byKey].map(
    ([key, all]) =>
      ({ key, ...fromWireKey(key), state: 'steady', because: '', streams: all }) as unknown as UniverseReport,
  );
};

const nodeReport = ({ ports, ...one }: ObservedNode): NodeReport =>
  ({
    ...one,
    mask: one.prefix === null ? '' : maskOf(one.prefix),
    alsoHere: one.doubled ? ['02:00:00:00:00:09'] : [],
    lastSeen: AT - 500,
    ports: ports
      .filter(({ use }) => use === 'out' || use === 'in')
      .map(
        ({ number, use, protocol, wire, merge, active, merging }) =>
          ({
            number,
            direction: use,
            sacn: protocol === 'sacn',
            portAddress: wire,
            disabled: false,
            ltp: merge === 'ltp',
            active,
            merging,
          }) as NodePortReport,
      ),
  }) as unknown as NodeReport;

const maskOf = (prefix: number): string =>
  [0, 8, 16, 24].map((from) => 256 - 2 ** (8 - Math.min(8, Math.max(0, prefix - from)))).join('.');

const visualiserReport = ({ address, lists, gets }: ObservedVisualiser): NodeReport =>
  ({
    address,
    mask: '',
    alsoHere: [],
    lastSeen: AT - 500,
    ports: lists.map((key, i) => ({
      number: i + 1,
      direction: 'out',
      sacn: false,
      portAddress: fromWireKey(key).number,
      disabled: false,
      active: gets.includes(key),
      merging: false,
    })),
  }) as unknown as NodeReport;

export function asReports(
  observed: Observed,
  records: ShowRecords,
): { heard: DiagnosisHeard; entries: MachineEntry[] } {
  const nodes = new Map<string, NodeReport>([
    ...observed.nodes.map((one) => [one.id, nodeReport(one)] as const),
    ...observed.visualisers.map((one) => [one.id, visualiserReport(one)] as const),
  ]);
  const here = { address: '127.0.0.1' };
  return {
    heard: {
      at: AT,
      universes: universesOf(observed.streams, records),
      syncs: [],
      listeningSince: 0,
      interface: here,
      artnetInterface: here,
      // As the running one lists what is planned.
      listed: records.universe.filter(({ protocol }) => protocol === 'artnet').map(({ wire }) => wire),
      polled: true,
      membership: { wanted: 41, joined: 41 },
    },
    entries: records.machine.map((plan) => {
      const node = nodes.get(plan.id);
      const heard = node && ({ node, gone: false, address: (node as unknown as ObservedNode).address } as HeardMachine);
      return { key: plan.id, name: plan.name, plan, heard } as MachineEntry;
    }),
  };
}
