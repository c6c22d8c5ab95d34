/** What a cause is: to what it can happen, what it changes in the world, how common it is, and what mends it. */
import { fromWireKey, wireKey, type Protocol } from '../../base/address';
import type { RepairAct } from '../known';
import type { Lamp, Subject } from '../../show/records';
import {
  plainStream,
  withLamp,
  withStreams,
  type ObservedStream,
  type World,
  type WorldLamp,
  type WorldStream,
} from '../simulate';
import type { Scene } from './scene';

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
}

export interface Cause {
  /** Stays the same */
  readonly id: string;
  /** What it is, wherever it is */
  readonly title: string;
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
/** Whether somebody is planned to send what is heard, near the path or not. */
export const isMeant = (planned: World, { sender, key }: Pick<ObservedStream, 'sender' | 'key'>): boolean =>
  planned.senders.some(({ id, streams }) => id === sender && streams.some(({ wire }) => wireKey(wire) === key));

/** Streams that are heard and nobody planned, as somebody's in the world. */
export const strayStreams = (heard: readonly ObservedStream[]): WorldStream[] =>
  heard.map(({ key, priority, slots, pace, levels, effect, offers }) =>
    plainStream(fromWireKey(key), {
      priority,
      slots,
      slow: pace === 'slow',
      ragged: pace === 'ragged',
      startCode: levels ? 0 : 1,
      effect,
      offers: offers ?? null,
      travels: 'multicast',
    }),
  );

/**
 * All that a sender sends by one protocol, so many numbers further on. What nobody lists there is sent to nobody, or to
 * everybody: which of them this sender does shows by whether it is heard there.
 */
export function movedBy({ seen }: Scene, id: string, protocol: Protocol, by: number): (world: World) => World {
  const heard = new Set(seen.streams.filter(({ sender }) => sender === id).map(({ key }) => key));
  return (world) =>
    withStreams(world, id, ({ wire, travels }) => {
      if (wire.protocol !== protocol) return {};
      const moved = { protocol, number: wire.number + by };
      return { wire: moved, travels: travels === 'listed' && heard.has(wireKey(moved)) ? 'broadcast' : travels };
    });
}

interface LampCause {
  readonly id: string;
  readonly title: string;
  readonly common: number;
  readonly says: (lamp: Lamp) => string;
  readonly change: (lamp: WorldLamp) => Partial<WorldLamp>;
  readonly mend: (lamp: Lamp) => string;
}

/** A cause that lies at the lamp that is asked about. */
export const lampCause = ({ id, title, common, says, change, mend }: LampCause): Cause => ({
  id,
  title,
  common,
  *find({ near, world, records }) {
    if (near.subject.kind !== 'lamp') return;
    for (const one of world.lamps) {
      const lamp = records.lamp.find((other) => other.id === one.id);
      // A run of pixels is no lamp with a start address and a mode of its own.
      if (!lamp) continue;
      yield {
        about: subject('lamp', one.id),
        says: says(lamp),
        change: (before) => withLamp(before, one.id, change(one)),
        repair: byHand(mend(lamp)),
      };
    }
  },
});
