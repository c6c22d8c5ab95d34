/** What a diagnosis looks at: the show, what is there, and the part of both that stands near one thing. */
import { fromWireKey, wireKey } from '../../base/address';
import type { MachineEntry } from '../../network/node';
import type { Patch } from '../../rig/patch';
import type { ShowRecords, Subject } from '../../show/records';
import type { RollReply } from '../roll';
import { OWN_NAME } from '../../signal/stream';
import { plainStream, plannedWorld, type Observed, type Present, type World, type WorldSender } from '../simulate';
import { askedLamps, NOBODY_ASKED } from './asked';
import { observedNow, type DiagnosisHeard, type ObservedNow } from './heard';
import { isOwn } from './heardStreams';
import { nearOf, type Near } from './near';

/** The show and what is there of it. */
export interface Whole {
  readonly records: ShowRecords;
  readonly patch: Patch;
  readonly heard: DiagnosisHeard;
  readonly entries: readonly MachineEntry[];
  /** What lamps said, if anybody asked them */
  readonly roll?: RollReply | undefined;
}

/** Machines, lamps and ports as a person calls them. */
export interface Names {
  /** A machine or lamp; of a stranger its address */
  of(id: string): string;
  /** `port 3 of Boiler node`, `universe 14 of Port rail driver` */
  port(machineId: string, number: number): string;
}

export interface Scene {
  readonly records: ShowRecords;
  /** What is near, in which all is well */
  readonly world: World;
  /** The plan's whole world */
  readonly whole: World;
  readonly near: Near;
  readonly seen: ObservedNow;
  readonly names: Names;
}

export function namesOf({ machine, lamp }: Pick<ShowRecords, 'machine' | 'lamp'>): Names {
  const machines = new Map(machine.map((one) => [one.id, one]));
  const of = (id: string) => {
    const named = machines.get(id);
    if (named) return named.name;
    if (isOwn(id)) return OWN_NAME;
    const number = id.startsWith('lamp') ? lamp.find((one) => one.id === id)?.number : undefined;
    return number === undefined ? id : `lamp ${number}`;
  };
  return {
    of,
    port(id, number) {
      const controller = machines.get(id)?.controller;
      const what = controller ? `universe ${controller.firstUniverse + number - 1}` : `port ${number}`;
      return `${what} of ${of(id)}`;
    },
  };
}

/** What this computer sends itself is there, and no fault: each of its components is a sender of the world. */
function ownSenders({ streams }: Observed): WorldSender[] {
  const own = new Map<string, WorldSender>();
  for (const { sender: id, key, address, priority } of streams) {
    if (!isOwn(id)) continue;
    const there = own.get(id) ?? { id, name: OWN_NAME, address, cid: id, on: true, streams: [], through: null };
    own.set(id, { ...there, streams: [...there.streams, plainStream(fromWireKey(key), { priority })] });
  }
  return [...own.values()];
}

const presentOf = (heard: DiagnosisHeard, seen: Observed): Present => ({
  here: {
    addresses: [heard.interface, heard.artnetInterface].flatMap((one) => one?.address ?? []),
    lists: new Set(heard.listed),
  },
  polled: heard.polled,
  own: ownSenders(seen),
});

/** Everything that does not depend on what is asked about; made once for many questions. */
export interface Ground {
  readonly whole: Whole;
  readonly seen: ObservedNow;
  readonly names: Names;
  world(lampIds: readonly string[]): World;
}

export function groundOf(whole: Whole): Ground {
  const { records, patch, heard, entries, roll } = whole;
  const asked = roll ? askedLamps(roll, heard.at) : NOBODY_ASKED;
  const seen = observedNow(records, patch, heard, entries, asked);
  const present = presentOf(heard, seen);
  return {
    whole,
    seen,
    names: namesOf(records),
    world: (lampIds) => {
      const world = plannedWorld(records, patch, lampIds, present);
      return { ...world, lamps: world.lamps.map((one) => ({ ...one, asked: asked.asked.has(one.id) })) };
    },
  };
}

/** Wire keys of show universes: as they are planned to travel, and as somebody is planned to send them. */
export function wiresOf(
  universes: readonly number[],
  { universe }: Pick<ShowRecords, 'universe'>,
  world: World,
): Set<number> {
  const wanted = new Set(universes);
  return new Set([
    ...universe
      .filter(({ number }) => wanted.has(number))
      .map(({ protocol, wire }) => wireKey({ protocol, number: wire })),
    ...world.senders.flatMap(({ streams }) =>
      streams.filter((one) => one.universe !== null && wanted.has(one.universe)).map(({ wire }) => wireKey(wire)),
    ),
  ]);
}

/** The scene around one thing; `world`: one made before, in which no lamp is to be lit. */
export function sceneOf(
  { whole: { records, patch }, seen, names, world: make }: Ground,
  about: Subject,
  made?: World,
): Scene {
  const path = nearOf(about, records, patch);
  const world = made ?? make(path.lamps);
  const near = { ...path, wires: wiresOf(path.universes, records, world), settling: seen.settling };
  return { records, near, world, whole: world, seen, names };
}

/** The scene in which everything is near. */
export function wholeScene({ whole: { records }, seen, names }: Ground, world: World): Scene {
  const universes = records.universe.map(({ number }) => number);
  const near: Near = {
    subject: { kind: 'universe', id: '', part: '' },
    universes,
    wires: wiresOf(universes, records, world),
    senders: new Set(world.senders.map(({ id }) => id).filter((id) => !isOwn(id))),
    nodes: new Set(world.nodes.map(({ id }) => id)),
    visualisers: new Set(world.visualisers.map(({ id }) => id)),
    lamps: [],
    port: null,
    settling: seen.settling,
  };
  return { records, near, world, whole: world, seen, names };
}
