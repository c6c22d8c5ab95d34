/** What senders send, and what of it comes to whom. */
import type { World, WorldNode, WorldSender, WorldStream } from './world';

const networkOf = (address: string, prefix: number): string => {
  const bits = address.split('.').reduce((all, part) => all * 256 + Number(part), 0);
  return String(Math.floor(bits / 2 ** (32 - prefix)));
};
/** An address that nobody planned stands in the way of nothing. */
const sharesNetwork = (address: string, node: WorldNode): boolean =>
  address === '' || node.address === '' || networkOf(address, node.prefix) === networkOf(node.address, node.prefix);

export const isThere = ({ powered, plugged }: WorldNode): boolean => powered && plugged;

/** What a sender sends now: nothing while it is off, or while the input that it is plugged into does not pass it on. */
export function sentBy(world: World, { on, streams, through }: WorldSender): readonly WorldStream[] {
  if (!on) return [];
  const live = streams.filter((one) => one.on);
  if (!through) return live;
  const node = world.nodes.find(({ id }) => id === through.nodeId);
  const port = node?.ports.find(({ number }) => number === through.port);
  if (!node || !port || !isThere(node) || port.use !== 'in' || port.disabled) return [];
  return live.map((one) => ({
    ...one,
    priority: node.priority,
    wire: { protocol: port.protocol, number: port.wire },
    travels: port.protocol === 'sacn' ? 'multicast' : 'broadcast',
  }));
}

/** Whether what a sender sends comes to this computer, as far as the plan tells. */
export function reachesHere({ here }: World, { travels, wire }: WorldStream): boolean {
  if (!here.hears[wire.protocol]) return false;
  if (travels === 'listed') return here.lists?.has(wire.number) ?? true;
  return typeof travels === 'string' || travels.to.some((address) => here.addresses.includes(address));
}

export function reachesNode(sender: WorldSender, { travels }: WorldStream, node: WorldNode): boolean {
  if (!isThere(node) || node.deafTo.includes(sender.address)) return false;
  // Multicast passes whatever the masks say.
  if (travels === 'multicast') return node.multicast;
  if (!sharesNetwork(sender.address, node)) return false;
  if (travels === 'broadcast') return node.broadcast;
  return travels === 'listed' || travels.to.includes(node.address);
}
