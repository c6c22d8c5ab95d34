/** The world as it is heard and said now, for looking ahead from there. */
import { fromWireKey, wireKey } from '../../base/address';
import {
  plainStream,
  type Observed,
  type ObservedPort,
  type ObservedStream,
  type WorldNode,
  type WorldPort,
  type WorldSender,
} from '../simulate';
import { isOwn } from './heardStreams';
import type { Scene } from './scene';

export const carries = ({ use, protocol, wire }: Pick<WorldPort, 'use' | 'protocol' | 'wire'>, key: number): boolean =>
  use === 'out' && wireKey({ protocol, number: wire }) === key;

/** Who is heard now with levels, as senders of the world; of `which` streams. This computer comes last: who is there already has the first places. */
export const heardSenders = (
  { seen, names }: Pick<Scene, 'seen' | 'names'>,
  which: (stream: ObservedStream) => boolean,
): WorldSender[] =>
  seen.streams
    .filter((one) => one.levels && which(one))
    .sort((a, b) => Number(isOwn(a.sender)) - Number(isOwn(b.sender)))
    .map(({ key, sender, address, priority, slots }) => ({
      id: sender,
      name: names.of(sender),
      address,
      cid: `${sender} ${address}`,
      on: true,
      through: null,
      streams: [plainStream(fromWireKey(key), { priority, slots })],
    }));

/** A port as its box says it is set; what a box cannot say stays as planned. */
const asItSays = (port: WorldPort, said: ObservedPort | undefined): WorldPort =>
  said
    ? {
        ...port,
        use: said.use as WorldPort['use'],
        protocol: said.use === 'off' ? port.protocol : (said.protocol as WorldPort['protocol']),
        wire: said.use === 'off' ? port.wire : said.wire,
        merge: port.merge === 'none' || port.merge === 'priority' ? port.merge : (said.merge as WorldPort['merge']),
      }
    : port;

/** Nodes as they say that they are set; one that says nothing is as planned. */
export const nodesAsTheySay = (nodes: readonly WorldNode[], { nodes: said }: Pick<Observed, 'nodes'>): WorldNode[] =>
  nodes.map((node) => {
    const ports = new Map(said.find(({ id }) => id === node.id)?.ports.map((port) => [port.number, port]));
    return { ...node, ports: node.ports.map((port) => asItSays(port, ports.get(port.number))) };
  });
