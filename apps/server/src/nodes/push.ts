/** Pushes plans to nodes: keeps how they were, sets them, reads them back, and says of each field how it came out. */
import { randomUUID } from 'node:crypto';
import type { PushResult } from '@taxiarch/core/contract';
import { keepSnapshot, snapshotOf } from '@taxiarch/core/machine';
import {
  heardMachines,
  matchMachines,
  portsAsSeen,
  pushPackets,
  pushVerdict,
  type MachineEntry,
} from '@taxiarch/core/node';
import type { ShowRecords, Snapshot } from '@taxiarch/core/show';
import type { LiveHost } from '../live/host';
import type { ShowStore } from '../store/store';

/** Written by the program for everybody, so that nobody's undo takes it away. */
const AUTHOR = 'Taxiarch';

const failed = (machineId: string, trouble: string): PushResult => ({ machineId, trouble, fields: [] });

export class Pusher {
  constructor(
    private readonly host: LiveHost,
    private readonly store: ShowStore,
  ) {}

  /** All machines as they stand now; `given` ports take the place of the planned ones. */
  private entries(given: ReadonlyMap<string, Snapshot['ports']>): Map<string, MachineEntry> {
    const records = this.store.records();
    const report = this.host.report();
    const wanted: ShowRecords = {
      ...records,
      machine: records.machine.map((one) => ({ ...one, ports: given.get(one.id) ?? one.ports })),
    };
    const heard = report ? heardMachines(report) : [];
    return new Map(matchMachines(wanted, heard).map((entry) => [entry.key, entry]));
  }

  private refusal(entry: MachineEntry | undefined): string | undefined {
    if (!entry?.plan) return 'This machine is not in the show any more.';
    if (entry.plan.locked) return `${entry.name} is locked. Unlock it first.`;
    if (!entry.heard || entry.heard.gone) return `${entry.name} does not answer. Look at its power and its cable.`;
    if (!entry.heard.node) return `${entry.name} does not answer Art-Net polls, so it cannot be set from here.`;
    return undefined;
  }

  /** Keeps how the machines are set now, all in one edit. */
  private async keep(entries: readonly MachineEntry[]): Promise<void> {
    const { universe } = this.store.records();
    const at = new Date().toISOString();
    const kept = entries.map(({ plan, heard }) =>
      keepSnapshot(
        snapshotOf(
          { ...plan!, ports: portsAsSeen(plan!.ports, heard!.node!, universe) },
          randomUUID(),
          `${plan!.name} before the push`,
          at,
          'Kept by itself',
        ),
      ),
    );
    if (kept.length === 0) return;
    await this.store.propose({
      author: AUTHOR,
      sentence: `Kept how ${kept.length === 1 ? entries[0]!.name : `${kept.length} machines`} ${kept.length === 1 ? 'was' : 'were'} set before the push`,
      changes: kept.flatMap(({ changes }) => changes),
    });
  }

  /**
   * Brings machines to their plan, or to the ports of a snapshot. Each stands for itself: one that
   * fails does not hold up the others, and what is as planned already is not sent again.
   */
  async push(machineIds: readonly string[], snapshot?: Snapshot): Promise<PushResult[]> {
    const given = new Map(snapshot ? machineIds.map((id) => [id, snapshot.ports] as const) : []);
    const entries = this.entries(given);
    const ready = machineIds.flatMap((id) => {
      const entry = entries.get(id);
      return entry && this.refusal(entry) === undefined && entry.drift.length > 0 ? [entry] : [];
    });
    await this.keep(ready);
    return Promise.all(machineIds.map((id) => this.pushOne(id, entries.get(id), given)));
  }

  private async pushOne(
    id: string,
    entry: MachineEntry | undefined,
    given: ReadonlyMap<string, Snapshot['ports']>,
  ): Promise<PushResult> {
    const refused = this.refusal(entry);
    if (refused !== undefined) return failed(id, refused);
    const { plan, heard, drift } = entry!;
    if (drift.length === 0) return { machineId: id, trouble: '', fields: [] };
    const node = heard!.node!;
    const universes = new Map(this.store.records().universe.map((one) => [one.number, one]));
    const packets = pushPackets(plan!, universes, node, drift);
    const silent = await this.host.ask({ type: 'program', address: node.address, mac: node.mac, packets });
    if (silent !== undefined) return failed(id, silent);
    const after = this.entries(given).get(id);
    return { machineId: id, trouble: '', fields: pushVerdict(drift, after?.drift ?? []) };
  }
}
