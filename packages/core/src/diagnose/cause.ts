/** What a cause is: to what it can happen, what it changes in the world, how common it is, and what mends it. */
import type { RepairAct } from '../known';
import type { ShowRecords, Subject } from '../records';
import type { Observed, World } from '../simulate';
import type { Near } from './near';

/** What is looked at: the plan's world, what is near, and what there is. */
export interface Scene {
  readonly records: ShowRecords;
  /** What is near, in which all is well */
  readonly world: World;
  /** The plan's whole world */
  readonly whole: World;
  readonly near: Near;
  readonly seen: Observed;
  /** The name of a machine; of a stranger its address */
  readonly nameOf: (id: string) => string;
}

export interface CauseRepair {
  /** What to do, as a person is told it */
  readonly says: string;
  readonly act: RepairAct;
}

/** A cause at one place: the deviation. */
export interface Deviation {
  readonly about: Subject;
  /** As a sentence that would be true */
  readonly says: string;
  readonly change: (world: World) => World;
  readonly repair: CauseRepair;
  /** Times as likely as the cause usually is; where there are signs of it beside what is simulated */
  readonly likelier?: number;
}

export interface Cause {
  /** Stays the same */
  readonly id: string;
  /** How often it is met, against others; 1 for what is met daily */
  readonly common: number;
  /** Where near the path it can be */
  find(scene: Scene): Iterable<Deviation>;
}

export const subject = (kind: Subject['kind'], id: string, part = ''): Subject => ({ kind, id, part });
export const byHand = (says: string): CauseRepair => ({ says, act: { kind: 'hand' } });
export const pushTo = (machineId: string, says: string): CauseRepair => ({ says, act: { kind: 'push', machineId } });

/** Senders near the path that are machines of their own. */
export const sendersNear = ({ world, near }: Scene) => world.senders.filter(({ id }) => near.senders.has(id));
export const nodesNear = ({ world, near }: Scene) => world.nodes.filter(({ id }) => near.nodes.has(id));
/** What a node near the path says now; undefined while it says nothing. */
export const saidBy = ({ seen }: Scene, id: string) => seen.nodes.find((one) => one.id === id);
/** Outputs on the path, planned and as their node says they are. */
export function* outputsNear(scene: Scene) {
  for (const node of nodesNear(scene))
    for (const port of node.ports) {
      if (port.use !== 'out') continue;
      yield { node, port, said: saidBy(scene, node.id)?.ports.find(({ number }) => number === port.number) };
    }
}
/** `port 3 of Boiler node`; pixel controllers take universes. */
export const portName = ({ records, nameOf }: Scene, nodeId: string, port: number): string =>
  records.machine.find(({ id }) => id === nodeId)?.controller
    ? `universe ${port} of ${nameOf(nodeId)}`
    : `port ${port} of ${nameOf(nodeId)}`;
