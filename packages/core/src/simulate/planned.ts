/** The world as the plan has it, in which all is well. */
import { linesWith, sendersOf, sentTo, universesOf, type Sender } from '../flow';
import { addressesOf, mainAddress } from '../ip';
import { carriedBy, wireNumber } from '../machine';
import { commonFailSafe, shortNameOf } from '../node';
import { linkedUniverses } from '../link';
import type { Patch } from '../patch';
import { SLOTS, type WireUniverse } from '../address';
import { isOffNetwork, type Machine, type Model, type ShowRecords, type Universe } from '../records';
import type {
  Travels,
  World,
  WorldLamp,
  WorldNode,
  WorldPort,
  WorldSender,
  WorldStream,
  WorldVisualiser,
} from './world';

type Universes = ReadonlyMap<number, Universe>;

const PLAIN_MODEL = { sources: 2, priorityFirst: true } as const;

function streamsOf(sender: Sender, universes: Universes): WorldStream[] {
  return universesOf(sender).flatMap((universe) =>
    linesWith(sender, universe).flatMap((line): WorldStream[] => {
      const wire = sentTo(line, universe, universes.get(universe));
      if (!wire) return [];
      const travels: Travels =
        line.delivery === 'unicast'
          ? { to: line.addresses }
          : line.delivery === 'usual'
            ? wire.protocol === 'sacn'
              ? 'multicast'
              : 'listed'
            : line.delivery;
      const { rate, priority } = line;
      return [
        {
          universe,
          wire,
          priority,
          rate,
          startCode: 0,
          slots: SLOTS,
          syncAddress: 0,
          travels,
          ragged: false,
          on: true,
        },
      ];
    }),
  );
}

/** A planned sender; a desk on a DMX cable sends what the inputs that it is plugged into send. */
function senders(sender: Sender, machines: readonly Machine[], universes: Universes): WorldSender[] {
  const { machine, id, name } = sender;
  const streams = streamsOf(sender, universes);
  const plain = { id, name, cid: id, on: true, streams, address: sender.addresses[0] ?? '', through: null };
  if (!isOffNetwork(machine.kind)) return [plain];
  return machines.flatMap((node) =>
    node.ports
      .filter(({ use, universe }) => use === 'in' && streams.some((one) => one.universe === universe))
      .map((port): WorldSender => ({
        ...plain,
        name: shortNameOf(node.name),
        address: mainAddress(node),
        through: { nodeId: node.id, port: port.number },
        streams: streams
          .filter(({ universe }) => universe === port.universe)
          .map((one) => ({
            ...one,
            priority: port.priority,
            wire: { protocol: port.protocol, number: wireNumber(port, universes) },
          })),
      })),
  );
}

/** The ports of a machine; a pixel controller has one for each universe that it takes. */
function portsOf({ ports, controller }: Machine, universes: Universes): WorldPort[] {
  const plain = { disabled: false, cable: true };
  const own = ports.map((one): WorldPort => {
    const port = one.copyOf === null ? one : carriedBy(one, ports);
    const { use, protocol, merge, loss, start, fixed } = port;
    return {
      ...plain,
      number: one.number,
      use,
      protocol,
      wire: wireNumber(port, universes),
      merge,
      loss,
      start,
      fixed,
      look: [],
    };
  });
  const taken = Array.from({ length: controller?.universes ?? 0 }, (_, i): WorldPort => {
    const universe = controller!.firstUniverse + i;
    const protocol = universes.get(universe)?.protocol ?? 'artnet';
    return {
      ...plain,
      number: i + 1,
      use: 'out',
      protocol,
      wire: wireNumber({ universe, protocol }, universes),
      merge: 'htp',
      loss: { kind: 'hold', after: 0, over: 0 },
      start: 'wait',
      fixed: 0,
      look: [],
    };
  });
  return [...own, ...taken];
}

function nodeOf(machine: Machine, model: Model | undefined, universes: Universes): WorldNode {
  const [main] = addressesOf(machine);
  return {
    id: machine.id,
    name: machine.name,
    address: main?.text ?? '',
    prefix: main?.prefix ?? 8,
    powered: true,
    plugged: true,
    firmware: machine.firmware,
    failSafe: commonFailSafe(machine.ports) ?? '',
    priority: machine.ports.find(({ use }) => use === 'in')?.priority ?? 100,
    doubled: false,
    multicast: true,
    broadcast: true,
    deafTo: [],
    model: model ?? PLAIN_MODEL,
    ports: portsOf(machine, universes),
  };
}

function visualiserOf(machine: Machine, records: ShowRecords): WorldVisualiser {
  const all = sendersOf(records.machine);
  const listens = records.link
    .filter(({ visualiserId }) => visualiserId === machine.id)
    .flatMap((link): WireUniverse[] => {
      const sender = all.find(({ id }) => id === link.senderId);
      return sender ? linkedUniverses(link, sender, records.universe).map(({ heard }) => heard) : [];
    });
  return {
    id: machine.id,
    name: machine.name,
    address: mainAddress(machine),
    on: true,
    early: false,
    multicast: true,
    listens,
  };
}

/** Machines that take universes out: nodes and pixel controllers. */
export const isOutlet = ({ ports, controller, kind }: Machine): boolean =>
  kind !== 'visualiser' && (controller !== null || ports.some(({ use }) => use !== 'off'));

const BLANK_HERE = { addresses: [], hears: { sacn: true, artnet: true }, ragged: false };

/** `lampIds`: the lamps that are to be lit in it. */
export function plannedWorld(
  records: ShowRecords,
  patch: Patch,
  lampIds: readonly string[],
  here: readonly string[] = [],
): World {
  const universes = new Map(records.universe.map((one) => [one.number, one]));
  const models = new Map(records.model.map((one) => [one.id, one]));
  const nodes = records.machine
    .filter(isOutlet)
    .map((one) => nodeOf(one, one.modelId === null ? undefined : models.get(one.modelId), universes));
  const carries = (universe: number) => {
    const planned = universes.get(universe);
    if (!planned) return [];
    return nodes.flatMap(({ id, ports }) =>
      ports
        .filter(({ use, protocol, wire }) => use === 'out' && protocol === planned.protocol && wire === planned.wire)
        .map(({ number }) => ({ nodeId: id, port: number })),
    );
  };
  const lamps = lampIds.flatMap((id): WorldLamp[] => {
    const patched = patch.lamp(id);
    if (!patched) return [];
    const { lamp, mode } = patched;
    const footprint = Math.max(1, ...mode.channels.flatMap(({ offsets }) => offsets));
    const { universe, channel } = lamp;
    return [
      { id, universe, ports: carries(universe), patched: channel, set: channel, footprint, fits: true, works: true },
    ];
  });
  return {
    senders: sendersOf(records.machine).flatMap((one) => senders(one, records.machine, universes)),
    nodes,
    visualisers: records.machine.filter(({ kind }) => kind === 'visualiser').map((one) => visualiserOf(one, records)),
    lamps,
    here: { ...BLANK_HERE, addresses: here },
  };
}
