/** The world as the plan has it, in which all is well. */
import { linesWith, sendersOf, sentTo, universesOf, type Sender } from '../../network/flow';
import { addressesOf, mainAddress } from '../../network/ip';
import { carriedBy, wireNumber } from '../../network/machine';
import { commonFailSafe, shortNameOf } from '../../network/node';
import { linkedUniverses } from '../link';
import { lastChannel, type Patch } from '../../rig/patch';
import { type WireUniverse } from '../../base/address';
import { isOffNetwork, type Machine, type Model, type ShowRecords, type Universe } from '../../show/records';
import {
  plainStream,
  type Travels,
  type World,
  type WorldHere,
  type WorldLamp,
  type WorldNode,
  type WorldPort,
  type WorldSender,
  type WorldStream,
  type WorldVisualiser,
} from './world';

type Universes = ReadonlyMap<number, Universe>;

const PLAIN_MODEL = { sources: 2, priorityFirst: true } as const;

/** The last slot of a universe that anything is patched on. */
type Needs = (universe: number) => number;

function streamsOf(sender: Sender, universes: Universes, needs: Needs): WorldStream[] {
  return universesOf(sender).flatMap((universe) =>
    linesWith(sender, universe).flatMap((line): WorldStream[] => {
      const wire = sentTo(line, universe, universes.get(universe));
      if (!wire) return [];
      const usual = plainStream(wire);
      const travels: Travels =
        line.delivery === 'unicast'
          ? { to: line.addresses }
          : line.delivery === 'usual'
            ? usual.travels
            : line.delivery;
      const { priority, whenIdle } = line;
      return [{ ...usual, universe, priority, travels, idles: !whenIdle, needs: needs(universe) }];
    }),
  );
}

/** A planned sender; a desk on a DMX cable sends what the inputs that it is plugged into send. */
function senders(sender: Sender, machines: readonly Machine[], universes: Universes, needs: Needs): WorldSender[] {
  const { machine, id, name } = sender;
  const streams = streamsOf(sender, universes, needs);
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
  // One that a server hands out is not planned.
  const served = machine.interfaces[0]?.addresses[0]?.way === 'dhcp';
  const main = served ? undefined : addressesOf(machine)[0];
  return {
    id: machine.id,
    name: machine.name,
    address: main?.text ?? '',
    prefix: main?.prefix ?? 8,
    powered: true,
    plugged: true,
    tells: model?.protocols.includes('artnet') ?? true,
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

/** What is so beside the plan, and no fault: this computer, and what it sends itself. */
export interface Present {
  readonly here: Pick<WorldHere, 'addresses' | 'lists'>;
  /** Boxes are polled. */
  readonly polled: boolean;
  readonly own: readonly WorldSender[];
}

const NOTHING_PRESENT: Present = { here: { addresses: [], lists: null }, polled: true, own: [] };

/** `lampIds`: the lamps that are to be lit in it. */
export function plannedWorld(
  records: ShowRecords,
  patch: Patch,
  lampIds: readonly string[],
  { here, polled, own }: Present = NOTHING_PRESENT,
): World {
  const universes = new Map(records.universe.map((one) => [one.number, one]));
  const models = new Map(records.model.map((one) => [one.id, one]));
  const nodes = records.machine
    .filter(isOutlet)
    .map((one) => nodeOf(one, one.modelId === null ? undefined : models.get(one.modelId), universes))
    .map((one) => ({ ...one, tells: one.tells && polled }));
  const needs: Needs = (universe) =>
    patch.universe(universe).reduce((last, span) => Math.max(last, lastChannel(span)), 0);
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
    const well = { fits: true, works: true, asked: false, deaf: false, elsewhere: false };
    return [{ id, universe, ports: carries(universe), patched: channel, set: channel, footprint, ...well }];
  });
  return {
    senders: [...sendersOf(records.machine).flatMap((one) => senders(one, records.machine, universes, needs)), ...own],
    nodes,
    visualisers: records.machine.filter(({ kind }) => kind === 'visualiser').map((one) => visualiserOf(one, records)),
    lamps,
    here: { ...here, hears: { sacn: true, artnet: true }, ragged: false },
  };
}
