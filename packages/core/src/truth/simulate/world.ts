/**
 * The world that a network lives in: senders, nodes, visualisers, lamps and this computer, as they behave. The plan
 * makes one in which all is well; a deviation changes it; {@link observe} says what would be heard, said and seen.
 */
import { SLOTS, type WireUniverse } from '../../base/address';
import type { PortModel, PortRules } from '../../network/port';
import { Sacn } from '../../protocol/sacn';

/** How a stream's packets travel; `listed`: unicast to every node whose poll reply lists the universe. */
export type Travels = 'multicast' | 'broadcast' | 'listed' | { readonly to: readonly string[] };

/**
 * What receivers make of a stream's levels. `some`, `nothing`: so many of the slots that lamps need have a priority above
 * 0 (per-slot priority, start code 0xDD); `discarded`: its sequence numbers are wrong (E1.31-2018, 6.7.2).
 */
export type Effect = 'all' | 'some' | 'nothing' | 'discarded';

/** One universe of one sender. */
export interface WorldStream {
  /** Show universe that it is meant to be; null if it is none of the show's */
  readonly universe: number | null;
  readonly wire: WireUniverse;
  /** sACN; Art-Net has none */
  readonly priority: number;
  /** Far fewer frames a second than planned */
  readonly slow: boolean;
  /** Silence is usual while nothing changes. */
  readonly idles: boolean;
  readonly startCode: number;
  /** Slots in a packet, 1–512, and so many that lamps need */
  readonly slots: number;
  readonly needs: number;
  /** Universe whose synchronisation packets its levels wait for; 0 for none */
  readonly syncAddress: number;
  readonly travels: Travels;
  /** Lost or late on the way, from its sender on */
  readonly ragged: boolean;
  readonly effect: Effect;
  /** Runs of slots (1–512) that it gives a priority; null where the packet's own goes for all */
  readonly offers: readonly { readonly from: number; readonly to: number }[] | null;
  /** It is sent at all */
  readonly on: boolean;
}

/** A stream with nothing special about it. */
export const plainStream = (wire: WireUniverse, over: Partial<WorldStream> = {}): WorldStream => ({
  universe: null,
  wire,
  priority: Sacn.DEFAULT_PRIORITY,
  slow: false,
  idles: false,
  startCode: Sacn.START_CODE_NULL,
  slots: SLOTS,
  needs: 0,
  syncAddress: 0,
  travels: wire.protocol === 'sacn' ? 'multicast' : 'listed',
  ragged: false,
  effect: 'all',
  offers: null,
  on: true,
  ...over,
});

export interface WorldSender {
  /** Of its machine, or its address for a stranger */
  readonly id: string;
  /** As its packets say it */
  readonly name: string;
  readonly address: string;
  /** Component id, or what stands for one */
  readonly cid: string;
  /** Its network output as a whole */
  readonly on: boolean;
  readonly streams: readonly WorldStream[];
  /** It is a DMX cable into this input of this node. */
  readonly through: { readonly nodeId: string; readonly port: number } | null;
}

export interface WorldPort extends PortRules {
  readonly number: number;
  /** An input that is switched off */
  readonly disabled: boolean;
  /** Its DMX cable leads on to the lamps. */
  readonly cable: boolean;
}

export interface WorldNode {
  readonly id: string;
  readonly name: string;
  readonly address: string;
  readonly prefix: number;
  readonly powered: boolean;
  readonly plugged: boolean;
  /** It speaks Art-Net and is polled: otherwise it says nothing, and that means nothing. */
  readonly tells: boolean;
  readonly firmware: string;
  /** What it says it does when signal is lost; empty if nothing is known of that */
  readonly failSafe: string;
  /** sACN priority of its inputs */
  readonly priority: number;
  /** Another box answers at its address. */
  readonly doubled: boolean;
  /** Multicast, and broadcast, get through to it. */
  readonly multicast: boolean;
  readonly broadcast: boolean;
  /** Addresses of senders that it does not hear */
  readonly deafTo: readonly string[];
  readonly model: PortModel;
  readonly ports: readonly WorldPort[];
}

export interface WorldVisualiser {
  readonly id: string;
  readonly name: string;
  readonly address: string;
  readonly on: boolean;
  /** It began before its sender, and never noticed. */
  readonly early: boolean;
  readonly multicast: boolean;
  readonly listens: readonly WireUniverse[];
}

/** A lamp as it hangs: on which port's cable, and how it understands its slots. */
export interface WorldLamp {
  readonly id: string;
  readonly universe: number;
  /** Ports whose cables may lead to it */
  readonly ports: readonly { readonly nodeId: string; readonly port: number }[];
  /** First slot, from 1, as patched and as it is set at the lamp */
  readonly patched: number;
  readonly set: number;
  readonly footprint: number;
  /** It is in the mode, wired and whole as the patch has it. */
  readonly fits: boolean;
  readonly works: boolean;
  /** It was asked lately, over its cable; otherwise that it says nothing means nothing. */
  readonly asked: boolean;
  /** It takes DMX and answers nothing. */
  readonly deaf: boolean;
  /** It hangs on a port that is none of its own, and answers from there. */
  readonly elsewhere: boolean;
}

export interface WorldHere {
  readonly addresses: readonly string[];
  readonly hears: { readonly sacn: boolean; readonly artnet: boolean };
  /** Port-Addresses that senders are told we listen to: what goes to listing nodes alone comes here only then; null for all */
  readonly lists: ReadonlySet<number> | null;
  /** Its own link loses packets. */
  readonly ragged: boolean;
}

export interface World {
  readonly senders: readonly WorldSender[];
  readonly nodes: readonly WorldNode[];
  readonly visualisers: readonly WorldVisualiser[];
  readonly lamps: readonly WorldLamp[];
  readonly here: WorldHere;
}

const changed = <T extends { readonly id: string }>(all: readonly T[], id: string, over: (one: T) => Partial<T>): T[] =>
  all.map((one) => (one.id === id ? { ...one, ...over(one) } : one));

export const withSender = (world: World, id: string, over: (one: WorldSender) => Partial<WorldSender>): World => ({
  ...world,
  senders: changed(world.senders, id, over),
});

/** Somebody more who sends. */
export const addSender = (
  world: World,
  sender: Pick<WorldSender, 'id' | 'name' | 'address' | 'streams'>,
  cid = `${sender.id} ${sender.address}`,
): World => ({
  ...world,
  senders: [...world.senders, { ...sender, cid, on: true, through: null }],
});

export const withStreams = (world: World, id: string, over: (one: WorldStream) => Partial<WorldStream>): World =>
  withSender(world, id, ({ streams }) => ({ streams: streams.map((one) => ({ ...one, ...over(one) })) }));

export const withNode = (world: World, id: string, over: (one: WorldNode) => Partial<WorldNode>): World => ({
  ...world,
  nodes: changed(world.nodes, id, over),
});

export const withPort = (world: World, id: string, port: number, over: Partial<WorldPort>): World =>
  withNode(world, id, ({ ports }) => ({
    ports: ports.map((one) => (one.number === port ? { ...one, ...over } : one)),
  }));

export const withVisualiser = (
  world: World,
  id: string,
  over: (one: WorldVisualiser) => Partial<WorldVisualiser>,
): World => ({ ...world, visualisers: changed(world.visualisers, id, over) });

export const withLamp = (world: World, id: string, over: Partial<WorldLamp>): World => ({
  ...world,
  lamps: changed(world.lamps, id, () => over),
});
