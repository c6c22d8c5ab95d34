/** Steps of a path at its ports: what each says, and who has a say there. */
import { formatWire, wireKey } from '../../base/address';
import { outletSays } from '../../network/flow';
import type { Subject } from '../../show/records';
import { observe, portKey, type WorldNode, type WorldPort } from '../simulate';
import { heardSenders, nodesAsTheySay } from './asHeard';
import { saidBy } from './cause';
import { step, type Evidence, type PathStep, type Standing } from './pathStep';
import type { Scene } from './scene';
import { capital } from './words';

const sourcesText = (names: readonly string[]): string => (names.length === 0 ? 'nobody' : names.join(' and '));

/** What a node says of one of its outputs. */
function portStanding(scene: Scene, node: WorldNode, { number, protocol, wire }: WorldPort): Standing {
  const said = saidBy(scene, node.id);
  if (!said)
    return node.tells
      ? ['broken', 'not known', `${node.name} does not answer`]
      : ['open', 'not known', `${node.name} speaks no Art-Net, or is not polled: it says nothing`];
  const now = said.ports.find((one) => one.number === number);
  const { heard, says } = outletSays(
    now && {
      disabled: now.use === 'off',
      direction: now.use === 'in' ? 'in' : 'out',
      sacn: now.protocol === 'sacn',
      portAddress: now.wire,
      active: now.active,
      merging: false,
    },
    { protocol, number: wire },
  );
  return heard ? ['fine', 'said', `it says that it ${says}`] : ['broken', 'said', says];
}

/** Who has a say at a port, as far as its node tells: whether it merges, and how. */
function mergeStanding(scene: Scene, node: WorldNode, port: WorldPort, plannedMerging: boolean): Standing | undefined {
  const now = saidBy(scene, node.id)?.ports.find((one) => one.number === port.number);
  if (!now || now.use !== 'out' || !now.active) return undefined;
  const planned = port.merge === 'ltp' ? 'ltp' : 'htp';
  if (plannedMerging && now.merge !== planned)
    return ['broken', 'said', `it says that it merges by ${now.merge.toUpperCase()}`];
  if (now.merging === plannedMerging)
    return ['fine', 'said', now.merging ? 'it says that it merges' : 'it says that it does not merge'];
  return now.merging
    ? ['broken', 'said', 'it says that it merges several senders']
    : ['broken', 'said', 'it says that it does not merge'];
}

/** Who finds no place at a port, as it says that it is set and with everybody who is heard. */
function refusedNow(scene: Scene): (portKey: string) => string[] {
  const { world, near, seen } = scene;
  const nodes = nodesAsTheySay(
    world.nodes.filter(({ id }) => near.nodes.has(id)),
    seen,
  );
  const senders = heardSenders(scene, ({ key }) => near.wires.has(key));
  const calls = new Map(senders.map(({ address, name }) => [address, name]));
  const now = observe({ ...world, senders, nodes });
  return (key) => now.ports.get(key)?.port.refused.map(({ address }) => calls.get(address) ?? address) ?? [];
}

export function portSteps(scene: Scene, evidence: Evidence): PathStep[] {
  const { near, world } = scene;
  const planned = observe(world);
  const refused = refusedNow(scene);
  return world.nodes
    .filter(({ id }) => near.nodes.has(id))
    .flatMap((node) =>
      node.ports
        .filter(
          ({ use, protocol, wire, number }) =>
            use === 'out' &&
            near.wires.has(wireKey({ protocol, number: wire })) &&
            (near.port === null || (near.port.nodeId === node.id && near.port.number === number)),
        )
        .flatMap((port) => {
          const { number, protocol, wire } = port;
          const about: Subject = { kind: 'port', id: node.id, part: String(number) };
          const name = scene.names.port(node.id, number);
          const said = evidence.node(node.id);
          const there = planned.ports.get(portKey(node.id, number))!.port;
          const out = saidBy(scene, node.id) ? refused(portKey(node.id, number)) : [];
          const merging: Standing | undefined =
            out.length > 0
              ? [
                  'broken',
                  'worked out',
                  `it takes no more: ${sourcesText(out)} ${out.length > 1 ? 'have' : 'has'} no place`,
                ]
              : mergeStanding(scene, node, port, there.merging);
          const sources = there.sources.map(({ name: its, address }) => its || address);
          const merge =
            merging &&
            step(
              about,
              'merge',
              `Merge at ${name}`,
              there.merging
                ? `${port.merge.toUpperCase()} of ${sourcesText(sources)}`
                : `${sourcesText(sources.slice(0, 1))} alone has the say`,
              merging,
              said,
            );
          return [
            step(
              about,
              'port',
              capital(name),
              formatWire({ protocol, number: wire }),
              portStanding(scene, node, port),
              said,
            ),
            ...(merge ? [merge] : []),
          ];
        }),
    );
}
