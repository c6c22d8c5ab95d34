/**
 * The course of one port in time: what leaves it, and who has the say, by the very code that a port runs. Ports to which
 * the same happens have the same course, and it is worked out once.
 */
import { wireKey, SLOTS } from '../../base/address';
import { OutputPort, type SacnPacket } from '../../network/port';
import { Sacn } from '../../protocol/sacn';
import {
  isThere,
  reachesNode,
  sentBy,
  type WorldNode,
  type WorldPort,
  type WorldSender,
  type WorldStream,
} from '../simulate';
import type { WhatIfWorld } from './event';
import type { Epoch } from './epochs';

/** A packet of each stream every so often, ms: less than the pause of one that says nothing new (E1.31-2018, 6.6.2). */
export const STEP_MS = 400;
/** All was well for so long before the time line begins, ms. */
const BEFORE_MS = 4000;
const LEVEL = 200;

/** L live, C live from others, H held, F fading, K a stored look, U full, D dark, S silent; of a lamp, P perhaps dark */
export type Code = 'L' | 'C' | 'H' | 'F' | 'K' | 'U' | 'D' | 'S' | 'P';

export interface Course {
  /** One a step from time nought */
  readonly codes: string;
  /** Who has the say, where that changes: ids of senders */
  readonly owners: readonly { readonly from: number; readonly ids: readonly string[] }[];
}

interface Arriving {
  readonly sender: WorldSender;
  readonly stream: WorldStream;
  readonly loss: number;
  /** Its synchronisation packets come */
  readonly synced: boolean;
}

/** Streams of a world by their wire universe: made once a world. */
export class Arrivals {
  private readonly byKey = new Map<number, { sender: WorldSender; stream: WorldStream }[]>();

  constructor(private readonly world: WhatIfWorld) {
    for (const sender of world.senders)
      for (const stream of sentBy(world, sender)) {
        const key = wireKey(stream.wire);
        const there = this.byKey.get(key);
        if (there) there.push({ sender, stream });
        else this.byKey.set(key, [{ sender, stream }]);
      }
  }

  /** What comes to a port. */
  at(node: WorldNode, port: WorldPort): Arriving[] {
    if (port.use !== 'out') return [];
    const sent = this.byKey.get(wireKey({ protocol: port.protocol, number: port.wire })) ?? [];
    const here = this.world.lossy.get(node.id) ?? 0;
    return sent
      .filter(({ sender, stream }) => reachesNode(sender, stream, node))
      .map(({ sender, stream }) => ({
        sender,
        stream,
        synced: stream.syncAddress !== 0 && !this.world.unsynced.has(sender.id),
        loss: 1 - (1 - here) * (1 - (this.world.lossy.get(sender.id) ?? 0)),
      }));
  }
}

interface Stretch {
  readonly from: number;
  readonly arriving: readonly Arriving[];
  readonly there: boolean;
}

const stretchOf = (
  { from }: Epoch,
  arrivals: Arrivals,
  node: WorldNode | undefined,
  port: WorldPort | undefined,
): Stretch => ({
  from,
  arriving: node && port ? arrivals.at(node, port) : [],
  there: node !== undefined && isThere({ ...node, plugged: true }),
});

/** What tells courses apart; the universe itself does not. */
const signatureOf = (node: WorldNode, port: WorldPort, stretches: readonly Stretch[], seconds: number): string => {
  const { use, merge, loss, start, fixed, look } = port;
  const rules = [use, port.protocol, merge, loss.kind, loss.after, loss.over, start, fixed, look.join('.')];
  const model = [node.model.sources, node.model.priorityFirst ?? true];
  const what = stretches.map(
    ({ from, arriving, there }) =>
      `${from} ${there} ${arriving
        .map(
          ({ sender, stream, loss: lost, synced }) =>
            `${sender.cid}@${sender.address} ${stream.priority} ${stream.startCode} ${stream.syncAddress} ${synced} ${lost}`,
        )
        .join(',')}`,
  );
  return [seconds, ...rules, ...model, ...what].join('|');
};

/** A throw of the dice that comes out the same each time. */
function seeded(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0;
    return state / 2 ** 32;
  };
}

const FULL_SLOTS = new Uint8Array(SLOTS).fill(LEVEL);

function packetOf({ sender, stream }: Arriving, sequence: number, terminated: boolean): SacnPacket {
  return {
    ...{ id: sender.cid, address: sender.address, name: sender.id, priority: stream.priority },
    ...{ sequence: sequence & 0xff, startCode: stream.startCode, slots: FULL_SLOTS, terminated, preview: false },
    ...{ syncAddress: stream.syncAddress, forceSync: false },
  };
}

function feed(port: OutputPort, one: Arriving, sequence: number, now: number): void {
  const { sender, stream } = one;
  if (stream.wire.protocol === 'sacn') return port.sacn(packetOf(one, sequence, false), now);
  if (stream.startCode === Sacn.START_CODE_NULL)
    port.artnet({ address: `${sender.address} ${sender.cid}`, physical: 0, slots: FULL_SLOTS }, now);
}

/** Whether a stream is ended in the way of the standard: its sender stopped, and sends it no more. */
const isEnded = ({ sender, stream }: Arriving, { arriving }: Stretch, stops: ReadonlySet<string>): boolean =>
  stream.wire.protocol === 'sacn' && stops.has(sender.id) && !arriving.some((one) => one.sender.id === sender.id);

/** `stops`: senders that end their streams in the way of the standard when they go, by their ids. */
function courseOf(
  node: WorldNode,
  port: WorldPort,
  stretches: readonly Stretch[],
  seconds: number,
  stops: ReadonlySet<string>,
): Course {
  let box = new OutputPort(port, node.model);
  const chance = seeded(7);
  const byCid = new Map<string, string>();
  let codes = '';
  const owners: { from: number; ids: readonly string[] }[] = [];
  let at = 0;
  /** Who had the say before anything happened */
  let first = '';
  let was: readonly Arriving[] = [];
  let there = true;
  let sequence = 0;
  for (let now = -BEFORE_MS; now <= seconds * 1000; now += STEP_MS) {
    while (at + 1 < stretches.length && stretches[at + 1]!.from * 1000 <= now) at += 1;
    const stretch = stretches[at]!;
    sequence += 1;
    // A box that starts up begins anew.
    if (stretch.there && !there) box = new OutputPort(port, node.model);
    there = stretch.there;
    for (const one of was) if (isEnded(one, stretch, stops)) box.sacn(packetOf(one, sequence, true), now);
    was = stretch.arriving;
    for (const one of stretch.arriving) {
      byCid.set(one.sender.cid, one.sender.id);
      byCid.set(`${one.sender.address} ${one.sender.cid} 0`, one.sender.id);
      // Through a lossy link the slow packets of a look that stands still are what counts.
      if (one.loss > 0 && (sequence % 2 === 1 || chance() < one.loss)) continue;
      feed(box, one, sequence, now);
      if (one.synced) box.sacnSync(one.stream.syncAddress, now);
    }
    const ids = there ? sayOf(box, now).map((id) => byCid.get(id) ?? id) : [];
    const say = ids.join();
    if (now < 0) {
      first = say;
      continue;
    }
    if (owners.length === 0 || owners[owners.length - 1]!.ids.join() !== say) owners.push({ from: now / 1000, ids });
    codes += there ? codeOf(box, port, now, say === first) : 'S';
  }
  return { codes, owners };
}

/** Ids of the sources that have the say, of a port that is fed. */
function sayOf(box: OutputPort, now: number): string[] {
  if (box.state(now) !== 'fed') return [];
  const { sources } = box;
  const top = Math.max(...sources.map(({ priority }) => priority));
  return sources
    .filter(({ priority, protocol }) => protocol === 'artnet' || priority === top)
    .map(({ id }) => id)
    .sort();
}

function codeOf(box: OutputPort, { loss }: WorldPort, now: number, sameOwners: boolean): Code {
  const out = box.output(now);
  if (out === null) return 'S';
  const level = out[0]!;
  if (box.state(now) === 'fed') {
    // Levels that wait for a synchronisation that does not come stand still.
    if (box.sources.every(({ held }) => held !== null)) return level > 0 ? 'H' : 'D';
    return level === 0 ? 'D' : sameOwners ? 'L' : 'C';
  }
  if (level === 0) return 'D';
  if (level === LEVEL) return 'H';
  if (loss.kind === 'full') return 'U';
  return loss.kind === 'fade' ? 'F' : 'K';
}

/** Courses of ports, each kind worked out once. */
export class Courses {
  private readonly known = new Map<string, Course>();

  of(
    nodeId: string,
    portNumber: number,
    epochs: readonly {
      readonly epoch: Epoch;
      readonly arrivals: Arrivals;
      readonly nodes: ReadonlyMap<string, WorldNode>;
    }[],
    seconds: number,
    stops: ReadonlySet<string>,
  ): Course | undefined {
    const node = epochs[0]!.nodes.get(nodeId);
    const port = node?.ports.find(({ number }) => number === portNumber);
    if (!node || !port) return undefined;
    const stretches = epochs.map(({ epoch, arrivals, nodes }) => {
      const its = nodes.get(nodeId);
      return stretchOf(
        epoch,
        arrivals,
        its,
        its?.ports.find(({ number }) => number === portNumber),
      );
    });
    const signature = `${signatureOf(node, port, stretches, seconds)} ${[...stops].join()}`;
    const found = this.known.get(signature) ?? courseOf(node, port, stretches, seconds, stops);
    this.known.set(signature, found);
    return found;
  }
}
