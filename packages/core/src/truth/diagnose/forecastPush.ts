/** What a push would bring: ports that would be set otherwise, and the light that would go or come with that. */
import { formatWire, wireKey } from '../../base/address';
import type { PushForecast } from '../known';
import { observe, portKey, reachesHere, type Simulated, type WorldPort } from '../simulate';
import { heardSenders, nodesAsTheySay } from './asHeard';
import { groundOf, type Whole } from './scene';
import { capital } from './words';

const setText = ({ use, protocol, wire }: WorldPort): string =>
  use === 'out'
    ? formatWire({ protocol, number: wire })
    : use === 'in'
      ? `an input, ${formatWire({ protocol, number: wire })}`
      : use;

const isLit = (simulated: Simulated, key: string): boolean =>
  simulated.ports.get(key)?.levels?.some((level) => level > 0) ?? false;

/** A port that is off merges nothing and takes nothing, whatever is set. */
const differs = (a: WorldPort, b: WorldPort): boolean =>
  a.use !== b.use || (a.use !== 'off' && (a.protocol !== b.protocol || a.wire !== b.wire || a.merge !== b.merge));

const LIGHT = {
  'not known': 'what is planned there cannot be heard from here: nobody knows what it would bring',
  'goes dark': 'nobody is heard there now: it would go dark',
  'gets light': 'somebody is heard there: it would get light',
  'stays dark': 'nobody is heard there now: it stays dark',
  'stays lit': 'somebody is heard there: it stays lit',
} as const;

function lightOf(lit: boolean, willBe: boolean, hidden: boolean): PushForecast['light'] {
  if (willBe) return lit ? 'stays lit' : 'gets light';
  if (hidden) return 'not known';
  return lit ? 'goes dark' : 'stays dark';
}

/**
 * Each output of these nodes that a push would set otherwise than its node says now, beside everybody who is heard.
 * Nodes that say nothing are left out: nobody knows what a push would change.
 */
export function forecastPush(whole: Whole, machineIds: readonly string[]): PushForecast[] {
  const ground = groundOf(whole);
  const { seen, names } = ground;
  const world = ground.world([]);
  const senders = heardSenders(ground, () => true);
  const told = new Set(seen.nodes.map(({ id }) => id));
  const planned = world.nodes.filter(({ id }) => machineIds.includes(id) && told.has(id));
  const now = nodesAsTheySay(planned, seen);
  const before = observe({ ...world, senders, nodes: now });
  const after = observe({ ...world, senders, nodes: planned });
  // Planned streams that go to others only, or rest while nothing changes: that they are not heard says nothing.
  const hidden = new Set(
    world.senders.flatMap(({ streams }) =>
      streams.filter((one) => one.idles || !reachesHere(world, one)).map(({ wire }) => wireKey(wire)),
    ),
  );
  const shows = new Map(
    whole.records.universe.map(({ number, protocol, wire }) => [wireKey({ protocol, number: wire }), number]),
  );
  return planned.flatMap((node, i) =>
    node.ports.flatMap((port): PushForecast[] => {
      const was = now[i]!.ports.find(({ number }) => number === port.number)!;
      if (!differs(was, port)) return [];
      const key = portKey(node.id, port.number);
      const [lit, willBe] = [isLit(before, key), isLit(after, key)];
      const takes = wireKey({ protocol: port.protocol, number: port.wire });
      const light = lightOf(lit, willBe, port.use === 'out' && hidden.has(takes));
      const universe = port.use === 'out' ? shows.get(takes) : undefined;
      const behind =
        light === 'goes dark' && universe !== undefined
          ? new Set(whole.patch.universe(universe).map(({ patched }) => patched.lamp.id)).size
          : 0;
      return [
        {
          nodeId: node.id,
          port: port.number,
          name: capital(names.port(node.id, port.number)),
          was: setText(was),
          becomes: setText(port),
          light,
          says: port.use === 'out' ? LIGHT[light] : lit ? 'its light would go out' : '',
          lamps: behind,
        },
      ];
    }),
  );
}
