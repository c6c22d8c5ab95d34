/** What a take would bring, a second ahead: the ports that would follow, and those that would not, with the way out. */
import { wireKey, type WireUniverse } from '../address';
import type { MachineEntry } from '../node';
import type { Patch } from '../patch';
import type { ShowRecords } from '../records';
import type { UniverseReport } from '../stream';
import { observe, portKey } from './observe';
import { plannedWorld } from './planned';
import type { World, WorldNode, WorldSender } from './world';

export interface PortForecast {
  readonly nodeId: string;
  readonly port: number;
  /** `Boiler node, port 2` */
  readonly name: string;
  /** Undefined where nobody knows: its node says nothing now */
  readonly follows: boolean | undefined;
  /** Why not, or how far; empty if it simply follows */
  readonly says: string;
  /** What would let it follow; empty if nothing is needed */
  readonly mend: string;
}

const OURS = 'taxiarch';

/** Everybody who is heard on a universe now, as senders of the world. */
function heardSenders(report: UniverseReport | undefined, wire: WireUniverse): WorldSender[] {
  const live = report?.streams.filter(({ lost, preview, own, levels }) => !lost && !preview && !own && levels) ?? [];
  return live.map(({ name, address, cid, priority, slotCount }) => ({
    id: `${name} ${address}`,
    name: name || address,
    address,
    cid: cid || `${address}`,
    on: true,
    through: null,
    streams: [
      {
        universe: null,
        wire,
        priority,
        rate: 40,
        startCode: 0,
        slots: slotCount,
        syncAddress: 0,
        travels: wire.protocol === 'sacn' ? 'multicast' : 'listed',
        ragged: false,
        on: true,
      },
    ],
  }));
}

/** A node as it says it is set now, where it says so. */
function asItSays(node: WorldNode, entry: MachineEntry | undefined): WorldNode {
  const said = entry?.heard && !entry.heard.gone ? entry.heard.node : undefined;
  if (!said || said.ports.length === 0) return node;
  const ports = new Map(said.ports.map((one) => [one.number, one]));
  return {
    ...node,
    address: entry!.heard!.address,
    ports: node.ports.map((port) => {
      const its = ports.get(port.number);
      if (!its) return port;
      return {
        ...port,
        use: its.disabled ? 'off' : its.direction,
        protocol: its.sacn ? 'sacn' : 'artnet',
        wire: its.portAddress,
        merge: port.merge === 'none' || port.merge === 'priority' ? port.merge : its.ltp ? 'ltp' : 'htp',
      };
    }),
  };
}

/**
 * What each planned port of a universe would do if Taxiarch sent it at this priority now, beside everybody who is heard
 * there. Ports that would simply follow are told too.
 */
export function forecastTake(
  records: ShowRecords,
  patch: Patch,
  universe: number,
  priority: number,
  reports: readonly UniverseReport[],
  entries: readonly MachineEntry[],
): PortForecast[] {
  const planned = records.universe.find(({ number }) => number === universe);
  if (!planned) return [];
  const wire = { protocol: planned.protocol, number: planned.wire } as const;
  const key = wireKey(wire);
  const world = plannedWorld(records, patch, []);
  const byId = new Map(entries.flatMap((one) => (one.plan ? [[one.plan.id, one] as const] : [])));
  const carriers = world.nodes.filter(({ ports }) =>
    ports.some((port) => port.use === 'out' && wireKey({ protocol: port.protocol, number: port.wire }) === key),
  );
  const others = heardSenders(
    reports.find((one) => one.key === key),
    wire,
  );
  // Taxiarch comes last: who is there already has the first places.
  const ours: WorldSender = {
    ...(others[0] ?? { through: null, on: true }),
    id: OURS,
    name: OURS,
    address: carriers[0]?.address ?? '',
    cid: OURS,
    on: true,
    through: null,
    streams: [
      {
        universe,
        wire,
        priority,
        rate: 40,
        startCode: 0,
        slots: 512,
        syncAddress: 0,
        travels: wire.protocol === 'sacn' ? 'multicast' : 'listed',
        ragged: false,
        on: true,
      },
    ],
  };
  const now: World = {
    ...world,
    senders: [...others, ours],
    nodes: carriers.map((node) => asItSays(node, byId.get(node.id))),
  };
  const { ports } = observe(now);
  return carriers.flatMap(({ id, name, ports: all }) =>
    all
      .filter((port) => port.use === 'out' && wireKey({ protocol: port.protocol, number: port.wire }) === key)
      .map(({ number }): PortForecast => {
        const about = { nodeId: id, port: number, name: `${name}, port ${number}` };
        const entry = byId.get(id);
        if (!entry?.heard?.node || entry.heard.gone)
          return {
            ...about,
            follows: undefined,
            says: 'does not answer: whether it follows nobody knows',
            mend: 'Look at it by eye.',
          };
        const set = now.nodes.find((one) => one.id === id)!.ports.find((one) => one.number === number)!;
        if (set.use !== 'out')
          return {
            ...about,
            follows: false,
            says: `is ${set.use === 'in' ? 'an input' : 'off'}`,
            mend: `Push the plan to ${name}.`,
          };
        if (wireKey({ protocol: set.protocol, number: set.wire }) !== key)
          return { ...about, follows: false, says: 'is set to another universe', mend: `Push the plan to ${name}.` };
        const { port } = ports.get(portKey(id, number))!;
        const taken = port.sources;
        if (!taken.some(({ name: of, address }) => of === OURS || address === ours.address))
          return {
            ...about,
            follows: false,
            says: `merges already as many senders as it can: ${taken.map((one) => one.name || one.address).join(' and ')}`,
            mend: `Stop one of them, cancel the merge at ${name}, or let another join instead.`,
          };
        const above = taken.filter((one) => one.name !== OURS && one.priority > priority);
        if (above.length > 0)
          return {
            ...about,
            follows: false,
            says: `${above.map((one) => one.name).join(' and ')} ${above.length === 1 ? 'has' : 'have'} a higher priority`,
            mend: `Send at more than ${Math.max(...above.map((one) => one.priority))}; the settings of this computer say the priority.`,
          };
        const equals = taken.filter(
          (one) => one.name !== OURS && (wire.protocol === 'artnet' || one.priority === priority),
        );
        return equals.length > 0 && set.merge !== 'ltp'
          ? { ...about, follows: true, says: 'the highest wins there: it can be raised and not lowered', mend: '' }
          : { ...about, follows: true, says: '', mend: '' };
      }),
  );
}
