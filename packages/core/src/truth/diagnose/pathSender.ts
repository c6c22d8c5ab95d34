/** Steps of a path at who sends: the stream, the interface that it leaves by, and those whom nobody planned. */
import { formatWire, fromWireKey, wireKey } from '../../base/address';
import { reachesHere, type ObservedStream, type WorldStream } from '../simulate';
import { isMeant } from './cause';
import { step, type Evidence, type PathStep, type Standing } from './pathStep';
import type { Scene } from './scene';

/** What is heard of a planned stream. */
function streamStanding(scene: Scene, id: string, streams: readonly WorldStream[], stream: WorldStream): Standing {
  const { world, seen } = scene;
  const { wire, priority, idles } = stream;
  const heard = seen.streams.find((one) => one.sender === id && one.key === wireKey(wire));
  const elsewhere = seen.streams.find(
    (one) => one.sender === id && !streams.some((of) => wireKey(of.wire) === one.key),
  );
  if (!heard && elsewhere)
    return ['broken', 'heard', `not heard here; heard on ${formatWire(fromWireKey(elsewhere.key))}`];
  if (!heard && !reachesHere(world, stream))
    return ['open', 'not known', 'goes to others only: it cannot be heard from here'];
  if (!heard && idles) return ['open', 'not known', 'not heard; it is silent while nothing changes'];
  if (!heard) return ['broken', 'not known', 'not heard'];
  if (heard.waits) return ['broken', 'heard', 'heard; its levels wait for synchronisation'];
  if (heard.effect === 'discarded') return ['broken', 'heard', 'received, but discarded: wrong sequence numbers'];
  if (heard.effect === 'nothing') return ['broken', 'heard', 'received, but controls no slot'];
  if (heard.effect === 'some') return ['broken', 'heard', 'received, but controls only some of the slots'];
  if (!heard.levels) return ['broken', 'heard', 'heard, without levels'];
  if (wire.protocol === 'sacn' && heard.priority !== priority)
    return ['broken', 'heard', `heard at priority ${heard.priority}`];
  return heard.pace === 'even' ? ['fine', 'heard', 'heard'] : ['open', 'heard', `heard, ${heard.pace}`];
}

export function senderSteps(scene: Scene, evidence: Evidence): PathStep[] {
  const { near, world, seen } = scene;
  return world.senders
    .filter(({ id }) => near.senders.has(id))
    .flatMap(({ id, address, streams }) => {
      const here = streams.filter(({ universe }) => universe !== null && near.universes.includes(universe));
      const heard = seen.streams.filter(
        (one) => one.sender === id && here.some(({ wire }) => wireKey(wire) === one.key),
      );
      return [
        ...here.map((stream) => {
          const { wire, priority, universe } = stream;
          return step(
            { kind: 'stream', id: String(universe), part: id },
            'sender',
            `${scene.names.of(id)}, universe ${universe}`,
            `${formatWire(wire)}${wire.protocol === 'sacn' ? ` at priority ${priority}` : ''}`,
            streamStanding(scene, id, streams, stream),
            evidence.stream(id, wireKey(wire)),
          );
        }),
        ...(heard.length > 0 ? [interfaceStep(scene, id, address, heard, evidence)] : []),
      ];
    });
}

/** By which of its interfaces a sender sends, told by where its packets come from. */
function interfaceStep(
  scene: Scene,
  id: string,
  planned: string,
  heard: readonly ObservedStream[],
  evidence: Evidence,
): PathStep {
  const other = planned === '' ? undefined : heard.find(({ address }) => address !== planned);
  const { address, key } = other ?? heard[0]!;
  return step(
    { kind: 'interface', id, part: '' },
    'interface',
    `Interface of ${scene.names.of(id)}`,
    planned === '' ? 'no address is planned' : planned,
    [other ? 'broken' : 'fine', 'heard', `packets come from ${address}`],
    evidence.stream(id, key),
  );
}

export function strangerSteps(scene: Scene, evidence: Evidence): PathStep[] {
  const { near, world, seen, records } = scene;
  const wires = new Map(
    records.universe.map((one) => [wireKey({ protocol: one.protocol, number: one.wire }), one.number]),
  );
  return seen.streams
    .filter(({ key, sender }) => {
      const universe = wires.get(key);
      return universe !== undefined && near.universes.includes(universe) && !isMeant(world, { sender, key });
    })
    .map(({ key, sender, address, priority }) =>
      step(
        { kind: 'stream', id: String(wires.get(key)), part: sender },
        'sender',
        `${scene.names.of(sender)}, universe ${wires.get(key)}`,
        'not planned',
        [
          'broken',
          'heard',
          `heard from ${address}${fromWireKey(key).protocol === 'sacn' ? ` at priority ${priority}` : ''}`,
        ],
        evidence.stream(sender, key),
      ),
    );
}
