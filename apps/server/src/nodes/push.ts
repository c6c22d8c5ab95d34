/** Pushes plans to nodes: keeps how they were, sets them, reads them back, and says of each field how it came out. */
import { randomUUID } from 'node:crypto';
import {
  heardMachines,
  type MachineEntry,
  matchMachines,
  portsAsSeen,
  pushPackets,
  type PushResult,
  pushVerdict,
  setByHand,
} from '@taxiarch/core/node';
import { keepSnapshot, snapshotOf } from '@taxiarch/core/machine';
import { added } from '@taxiarch/core/edit';
import type { Snapshot, Universe } from '@taxiarch/core/records';
import type { EngineHost } from '../bridge/host';
import type { ShowDoor } from '../show/showDoor';

/** Written by the program for everybody, so that nobody's undo takes it away. */
const AUTHOR = 'Taxiarch';

export class Pusher {
  constructor(
    private readonly host: EngineHost,
    private readonly show: ShowDoor,
  ) {}

  /** All machines as they stand now; `given` ports take the place of the planned ones. */
  private entries(given: ReadonlyMap<string, Snapshot['ports']>): Map<string, MachineEntry> {
    const records = this.show.plan();
    const wanted = {
      ...records,
      machine: records.machine.map((one) => ({ ...one, ports: given.get(one.id) ?? one.ports })),
    };
    return new Map(matchMachines(wanted, heardMachines(this.host.now())).map((entry) => [entry.key, entry]));
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
    if (entries.length === 0) return;
    const at = new Date().toISOString();
    const made: Universe[] = [];
    const kept = entries.flatMap(({ plan, heard }) => {
      const known = [...this.show.plan().universe, ...made];
      const { ports, universes } = portsAsSeen(plan!.ports, heard!.node!, known);
      made.push(...universes);
      const name = `${plan!.name} before the push`;
      return keepSnapshot(snapshotOf({ ...plan!, ports }, randomUUID(), name, at, 'Kept by itself')).changes;
    });
    const whose = entries.length === 1 ? `${entries[0]!.name} was` : `${entries.length} machines were`;
    const refused = await this.show.propose({
      author: AUTHOR,
      sentence: `Kept how ${whose} set before the push`,
      changes: [...made.map((one) => added('universe', one)), ...kept],
    });
    if (refused !== undefined)
      throw new Error(`how the nodes were set could not be kept (${refused}), so nothing was pushed`);
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
    const silent = new Map(await Promise.all(ready.map(async (entry) => [entry.key, await this.set(entry)] as const)));
    await this.host.freshReport();
    const after = this.entries(given);
    return machineIds.map((id): PushResult => {
      const before = entries.get(id);
      const trouble = this.refusal(before) ?? silent.get(id);
      if (trouble !== undefined) return { machineId: id, trouble, fields: [], byHand: [] };
      return {
        machineId: id,
        trouble: '',
        fields: pushVerdict(before!.drift, after.get(id)?.drift ?? []),
        byHand: setByHand(before!.plan!, before!.model),
      };
    });
  }

  /** Sends what brings one node to its plan; resolves with a sentence if it did not answer afterwards. */
  private set({ plan, heard, drift }: MachineEntry): Promise<string | undefined> {
    const { address, mac } = heard!.node!;
    const universes = new Map(this.show.plan().universe.map((one) => [one.number, one]));
    const packets = pushPackets(plan!, universes, heard!.node!, drift);
    if (!packets.ok) return Promise.resolve(packets.why);
    return this.host.ask({ type: 'program', address, mac, packets: packets.value });
  }
}
