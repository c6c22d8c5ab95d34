/** The part of a world that a diagnosis needs: what differs, what stands on the path, and a little of what is well. */
import { fromWireKey, wireKey, type Protocol } from '../../base/address';
import { observe, portKey } from '../simulate';
import type { Scene } from './scene';
import { comparable, factsOf } from './facts';

/** Of each sort so many are kept: what differs, what is on the path, and others that show what is well. */
const MOST = { amiss: 64, near: 6, well: 2 } as const;

class Some<T> {
  readonly kept = new Set<T>();
  private readonly counts = { amiss: 0, near: 0, well: 0 };

  add(one: T, sort: keyof typeof MOST): void {
    if (this.kept.has(one) || this.counts[sort] >= MOST[sort]) return;
    this.counts[sort] += 1;
    this.kept.add(one);
  }
}

/** A scene with fewer streams and ports, in which the same is amiss; simulating it takes a fraction of the time. */
export function narrow(scene: Scene): Scene {
  const { world, near, seen } = scene;
  const now = factsOf(seen, near, world);
  const amiss = now.differing(comparable(factsOf(observe(world), near, world), now, world));
  const onPath = near.wires;
  const ports = new Some<string>();
  const keys = new Map<string, Some<number>>();
  const keysOf = (sender: string) => {
    const there = keys.get(sender) ?? new Some<number>();
    keys.set(sender, there);
    return there;
  };
  for (const fact of amiss) {
    // Of a sender of which something differs all is looked at: by what is elsewhere one sees how.
    if (fact.kind === 'stream')
      for (const sender of world.senders)
        if (sender.id === fact.id) for (const { wire } of sender.streams) keysOf(fact.id).add(wireKey(wire), 'amiss');
    if (fact.kind === 'port') ports.add(portKey(fact.id, fact.port), 'amiss');
  }
  const senders = world.senders.filter(({ id }) => near.senders.has(id));
  // Who else sends here, and what a port says it is set to: whether signal passes there hangs on that.
  const set = new Set([
    ...near.wires,
    ...seen.nodes
      .filter(({ id }) => near.nodes.has(id))
      .flatMap(({ ports: all }) =>
        all.map(({ protocol, wire }) => wireKey({ protocol: protocol as 'sacn', number: wire })),
      ),
  ]);
  const others = world.senders
    .filter(({ id }) => !near.senders.has(id))
    .map((one) => ({ ...one, streams: one.streams.filter(({ wire }) => set.has(wireKey(wire))) }))
    .filter(({ streams }) => streams.length > 0);
  for (const { id, streams } of senders)
    for (const { wire } of streams) keysOf(id).add(wireKey(wire), onPath.has(wireKey(wire)) ? 'near' : 'well');
  const wires = new Set([...keys.values()].flatMap(({ kept }) => [...kept]));
  // What is heard at all is no question; what is not may be this computer's fault.
  const hears = new Set<Protocol | 'nodes'>([...wires].map((key) => fromWireKey(key).protocol));
  if (near.nodes.size > 0) hears.add('nodes');
  for (const what of [...hears]) if (now.has({ kind: 'hears', what })) hears.delete(what);
  for (const { id, ports: all } of world.nodes) {
    if (!near.nodes.has(id)) continue;
    const well = new Some<string>();
    for (const { number, use, protocol, wire } of all) {
      const key = wireKey({ protocol, number: wire });
      if (use === 'in' || (onPath.has(key) && wires.has(key))) ports.kept.add(portKey(id, number));
      else if (use === 'out' && wires.has(key)) well.add(portKey(id, number), 'well');
    }
    for (const one of well.kept) ports.kept.add(one);
  }
  return {
    ...scene,
    near: { ...near, keys: new Map([...keys].map(([id, { kept }]) => [id, kept])), ports: ports.kept, hears },
    world: {
      ...world,
      senders: [
        ...senders.map((sender) => ({
          ...sender,
          streams: sender.streams.filter(
            ({ wire }) => keysOf(sender.id).kept.has(wireKey(wire)) || set.has(wireKey(wire)),
          ),
        })),
        ...others,
      ],
      nodes: world.nodes
        .filter(({ id }) => near.nodes.has(id) || [...senders, ...others].some(({ through }) => through?.nodeId === id))
        .map((node) => ({
          ...node,
          ports: node.ports.filter(({ number, use }) => use === 'in' || ports.kept.has(portKey(node.id, number))),
        })),
    },
  };
}
