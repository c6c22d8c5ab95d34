/** What a take would bring, a second ahead: the ports that would follow, and those that would not, with the way out. */
import { wireKey } from '../../base/address';
import type { PortForecast } from '../known';
import { observe, plainStream, portKey, type PortNow, type WorldPort, type WorldSender } from '../simulate';
import { carries, heardSenders, nodesAsTheySay } from './asHeard';
import { isOwn } from './heardStreams';
import { groundOf, type Whole } from './scene';
import { capital } from './words';

const OURS = 'taxiarch';

/**
 * What each planned port of a universe would do if Taxiarch sent it at this priority now, beside everybody who is heard
 * there. Ports that would simply follow are told too, without words.
 */
export function forecastTake(whole: Whole, universe: number, priority: number): PortForecast[] {
  const planned = whole.records.universe.find(({ number }) => number === universe);
  if (!planned) return [];
  const wire = { protocol: planned.protocol, number: planned.wire } as const;
  const key = wireKey(wire);
  const ground = groundOf(whole);
  const { seen, names } = ground;
  const world = ground.world([]);
  const carriers = world.nodes.filter(({ ports }) => ports.some((port) => carries(port, key)));
  const by = wire.protocol === 'sacn' ? whole.heard.interface : whole.heard.artnetInterface;
  const ours: WorldSender = {
    id: OURS,
    name: OURS,
    address: by?.address ?? '',
    cid: OURS,
    on: true,
    through: null,
    streams: [plainStream(wire, { priority })],
  };
  const said = new Map(seen.nodes.map((one) => [one.id, one]));
  const nodes = nodesAsTheySay(carriers, seen);
  const others = heardSenders(ground, (one) => one.key === key && !isOwn(one.sender));
  const calls = new Map(others.map(({ name, address }) => [address, name]));
  // Taxiarch comes last: who is there already has the first places.
  const { ports } = observe({ ...world, senders: [...others, ours], nodes });
  return carriers.flatMap((node, i) =>
    node.ports
      .filter((port) => carries(port, key))
      .map(({ number }): PortForecast => {
        const set = nodes[i]!.ports.find((port) => port.number === number)!;
        const word = said.has(node.id)
          ? wordOf(set, ports.get(portKey(node.id, number))!, node.name, ours, priority, key, calls)
          : SAYS_NOTHING;
        return { nodeId: node.id, port: number, name: capital(names.port(node.id, number)), ...word };
      }),
  );
}

type Word = Pick<PortForecast, 'follows' | 'says' | 'mend'>;

const SAYS_NOTHING: Word = {
  follows: null,
  says: 'says nothing now: whether it follows nobody knows',
  mend: 'Look at it by eye.',
};
const no = (says: string, mend: string): Word => ({ follows: false, says, mend });

function wordOf(
  set: WorldPort,
  { port }: PortNow,
  node: string,
  ours: WorldSender,
  priority: number,
  key: number,
  /** What senders are called, by their address */
  calls: ReadonlyMap<string, string>,
): Word {
  const push = `Push the plan to ${node}.`;
  if (set.use !== 'out') return no(`is ${set.use === 'in' ? 'an input' : 'off'}`, push);
  if (!carries(set, key)) return no('is set to another universe', push);
  const isOurs = ({ protocol, id, address }: (typeof port.sources)[number]) =>
    protocol === 'sacn' ? id === OURS : address === ours.address;
  const others = port.sources.filter((one) => !isOurs(one));
  const named = (all: typeof others) =>
    all.map(({ name, address }) => name || (calls.get(address) ?? address)).join(' and ');
  if (others.length === port.sources.length) {
    // What reaches it and finds no place is refused; what does not reach it is another matter.
    if (!port.refused.some(isOurs)) return no('lies in another network', `Give both an address in one network.`);
    return no(
      `merges already as many senders as it can: ${named(others)}`,
      `Stop one of them, cancel the merge at ${node}, or let another join instead.`,
    );
  }
  const above = others.filter((one) => one.priority > priority);
  if (above.length > 0)
    return no(
      `follows ${named(above)}, at a higher priority`,
      `Send at more than ${Math.max(...above.map((one) => one.priority))}; the settings of this computer say the priority.`,
    );
  const equals = others.some((one) => one.protocol === 'artnet' || one.priority === priority);
  return {
    follows: true,
    says: equals && set.merge !== 'ltp' ? 'takes the highest: it can be raised and not lowered' : '',
    mend: '',
  };
}
