/** The path of something, step by step from the lamp to the sender: planned beside what is known. */
import { formatWire, fromWireKey, wireKey } from '../address';
import type { Patch } from '../patch';
import type { Subject } from '../records';
import { reachesHere } from '../simulate';
import { isMeant, saidBy } from './cause';
import { capital } from './words';
import type { Scene } from './scene';
import { sightingKey, type Known, type STEP_STATES } from '../known';

export interface PathStep {
  readonly about: Subject;
  /** `lamp`, `port`, `universe`, `sender`, `visualiser`, `this computer` */
  readonly kind: string;
  readonly name: string;
  readonly planned: string;
  readonly now: string;
  readonly known: Known;
  readonly state: (typeof STEP_STATES)[number];
}

const step = (
  about: Subject,
  kind: string,
  name: string,
  planned: string,
  [state, known, now]: readonly [PathStep['state'], Known, string],
): PathStep => ({ about, kind, name, planned, now, known, state });

function lampSteps(scene: Scene, patch: Patch): PathStep[] {
  return scene.near.lamps.flatMap((id) => {
    const patched = patch.lamp(id);
    if (!patched || scene.near.subject.kind !== 'lamp') return [];
    const about: Subject = { kind: 'lamp', id, part: '' };
    const { lamp } = patched;
    const right =
      scene.seen.answers.get(sightingKey(about, 'right')) ?? scene.seen.answers.get(sightingKey(about, 'lit'));
    return [
      step(
        about,
        'lamp',
        `${lamp.number} ${lamp.name}`,
        `${lamp.universe}/${lamp.channel}, ${lamp.mode}`,
        right === undefined
          ? ['open', 'not known', 'nobody has looked']
          : right === 'yes'
            ? ['fine', 'seen', 'it lights']
            : ['broken', 'seen', 'it does not light as it should'],
      ),
    ];
  });
}

function portSteps(scene: Scene): PathStep[] {
  const { near, world } = scene;
  return world.nodes
    .filter(({ id }) => near.nodes.has(id))
    .flatMap((node) => {
      const said = saidBy(scene, node.id);
      return node.ports
        .filter(
          ({ use, protocol, wire, number }) =>
            use === 'out' &&
            near.wires.has(wireKey({ protocol, number: wire })) &&
            (near.port === null || (near.port.nodeId === node.id && near.port.number === number)),
        )
        .map(({ number, protocol, wire }) => {
          const now = said?.ports.find((one) => one.number === number);
          const state = ((): readonly [PathStep['state'], Known, string] => {
            if (!said)
              return node.tells
                ? ['broken', 'not known', `${node.name} does not answer`]
                : ['open', 'not known', `${node.name} speaks no Art-Net, or is not polled: it says nothing`];
            if (!now || now.use !== 'out') return ['broken', 'said', now?.use === 'in' ? 'is an input' : 'is off'];
            if (now.protocol !== protocol || now.wire !== wire)
              return ['broken', 'said', `set to ${formatWire({ protocol: now.protocol as 'sacn', number: now.wire })}`];
            if (!now.active) return ['broken', 'said', 'nothing comes in'];
            return now.merging ? ['open', 'said', 'sends, merging several senders'] : ['fine', 'said', 'sends'];
          })();
          return step(
            { kind: 'port', id: node.id, part: String(number) },
            'port',
            capital(scene.names.port(node.id, number)),
            formatWire({ protocol, number: wire }),
            state,
          );
        });
    });
}

function senderSteps(scene: Scene): PathStep[] {
  const { near, world, seen } = scene;
  return world.senders
    .filter(({ id }) => near.senders.has(id))
    .flatMap(({ id, address, streams }) =>
      streams
        .filter(({ universe }) => universe !== null && near.universes.includes(universe))
        .map((stream) => {
          const { wire, priority, universe, idles } = stream;
          const key = wireKey(wire);
          const heard = seen.streams.find((one) => one.sender === id && one.key === key);
          const elsewhere = seen.streams.find(
            (one) => one.sender === id && !streams.some((of) => wireKey(of.wire) === one.key),
          );
          // Where it need not come here, or not now, that it is not heard says nothing.
          const unheard = idles || !reachesHere(world, stream) ? 'open' : 'broken';
          const state = ((): readonly [PathStep['state'], Known, string] => {
            if (!heard && elsewhere)
              return ['broken', 'heard', `not heard here; heard on ${formatWire(fromWireKey(elsewhere.key))}`];
            if (!heard) return [unheard, 'not known', 'not heard'];
            if (heard.waits) return ['broken', 'heard', 'heard; its levels wait for synchronisation'];
            if (!heard.levels) return ['broken', 'heard', 'heard, without levels'];
            if (address !== '' && heard.address !== address) return ['broken', 'heard', `heard from ${heard.address}`];
            if (wire.protocol === 'sacn' && heard.priority !== priority)
              return ['broken', 'heard', `heard at priority ${heard.priority}`];
            if (heard.pace !== 'even') return ['open', 'heard', `heard, ${heard.pace}`];
            return ['fine', 'heard', 'heard'];
          })();
          return step(
            { kind: 'stream', id: String(universe), part: id },
            'sender',
            `${scene.names.of(id)}, universe ${universe}`,
            `${formatWire(wire)}${wire.protocol === 'sacn' ? ` at priority ${priority}` : ''} from ${address}`,
            state,
          );
        }),
    );
}

function strangerSteps(scene: Scene): PathStep[] {
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
      ),
    );
}

function visualiserSteps(scene: Scene): PathStep[] {
  return scene.world.visualisers
    .filter(({ id }) => scene.near.visualisers.has(id))
    .map(({ id, name, address, listens }) => {
      const said = scene.seen.visualisers.find((one) => one.id === id);
      const artnet = listens.filter(({ protocol }) => protocol === 'artnet').map(wireKey);
      const lacks = artnet.filter((key) => !said?.gets.includes(key));
      return step(
        { kind: 'machine', id, part: '' },
        'visualiser',
        name,
        `${listens.length} universes at ${address}`,
        !said
          ? ['open', 'not known', 'does not answer']
          : lacks.length > 0
            ? ['broken', 'said', `gets ${artnet.length - lacks.length} of ${artnet.length} by Art-Net`]
            : ['fine', 'said', `gets all ${artnet.length} by Art-Net`],
      );
    });
}

/** From the lamp back to the senders. */
export const pathOf = (scene: Scene, patch: Patch): PathStep[] => [
  ...lampSteps(scene, patch),
  ...visualiserSteps(scene),
  ...portSteps(scene),
  ...senderSteps(scene),
  ...strangerSteps(scene),
];
