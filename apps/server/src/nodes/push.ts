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
} from '@taxiarch/core/network/node';
import { KEPT_BY_ITSELF, keepSnapshot, snapshotOf } from '@taxiarch/core/network/machine';
import { added } from '@taxiarch/core/show/edit';
import type { Snapshot, Universe } from '@taxiarch/core/show/records';
import type { EngineHost } from '../bridge/host';
import type { ShowDoor } from '../bridge/showDoor';

/** Written by the program for everybody, so that nobody's undo takes it away. */
const AUTHOR = 'Taxiarch';

/** Settings are sent so often at most, for packets that are lost on their way. */
const MOST_TRIES = 4;

type Ports = ReadonlyMap<string, Snapshot['ports']>;

/** What sending to one node came to; empty if it answered afterwards */
interface Outcome {
  /** Why its plan cannot be: nothing was sent */
  readonly impossible?: string;
  /** That it did not answer */
  readonly silent?: string | undefined;
}

export class Pusher {
  constructor(
    private readonly host: EngineHost,
    private readonly show: ShowDoor,
  ) {}

  /** All machines as they stand now; `given` ports take the place of the planned ones. */
  private entries(given: Ports): Map<string, MachineEntry> {
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
      return keepSnapshot(snapshotOf({ ...plan!, ports }, randomUUID(), name, at, KEPT_BY_ITSELF)).changes;
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

  /** Asks the machines anew, so that what was turned at the box a second ago is known; those that are silent stay as they were. */
  private async readAfresh(machineIds: readonly string[], given: Ports): Promise<void> {
    const entries = this.entries(given);
    await Promise.all(
      machineIds.map((id) => {
        const node = entries.get(id)?.heard?.node;
        return node && this.host.ask({ type: 'program', address: node.address, mac: node.mac, packets: [] });
      }),
    );
    await this.host.freshReport();
  }

  /**
   * Brings machines to their plan, or to the ports of a snapshot. Each stands for itself: one that
   * fails does not hold up the others, and what is as planned already is not sent again.
   */
  async push(machineIds: readonly string[], snapshot?: Snapshot): Promise<PushResult[]> {
    const given: Ports = new Map(snapshot ? machineIds.map((id) => [id, snapshot.ports] as const) : []);
    await this.readAfresh(machineIds, given);
    const before = this.entries(given);
    const ready = machineIds.flatMap((id) => {
      const entry = before.get(id);
      return entry && this.refusal(entry) === undefined && entry.drift.length > 0 ? [entry] : [];
    });
    await this.keep(ready);
    const outcomes = new Map<string, Outcome>();
    let left = ready;
    for (let tries = 0; tries < MOST_TRIES && left.length > 0; tries += 1) {
      await Promise.all(left.map(async (entry) => outcomes.set(entry.key, await this.set(entry))));
      await this.host.freshReport();
      const now = this.entries(given);
      // A packet may have been lost on its way: what still differs and can be set is sent again.
      left = left.flatMap(({ key }) => {
        const entry = now.get(key);
        if (outcomes.get(key)?.impossible) return [];
        return entry?.drift.some(({ way }) => way !== 'panel') && entry.heard?.node && !entry.heard.gone ? [entry] : [];
      });
    }
    const after = this.entries(given);
    return machineIds.map((id): PushResult => {
      const entry = before.get(id);
      const refused = this.refusal(entry);
      if (refused !== undefined) return { machineId: id, trouble: refused, fields: [], byHand: [] };
      const { impossible = '', silent = '' } = outcomes.get(id) ?? {};
      if (impossible !== '') return { machineId: id, trouble: impossible, fields: [], byHand: [] };
      return {
        machineId: id,
        trouble: silent,
        fields: pushVerdict(entry!.drift, after.get(id)?.drift ?? [], silent === ''),
        byHand: setByHand(entry!.plan!, entry!.model),
      };
    });
  }

  /** Sends what brings one node to its plan, and reads it back. */
  private async set({ plan, heard, drift }: MachineEntry): Promise<Outcome> {
    const { address, mac } = heard!.node!;
    const universes = new Map(this.show.plan().universe.map((one) => [one.number, one]));
    const packets = pushPackets(plan!, universes, heard!.node!, drift);
    if (!packets.ok) return { impossible: packets.why };
    return { silent: await this.host.ask({ type: 'program', address, mac, packets: packets.value }) };
  }
}
