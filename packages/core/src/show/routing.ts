/** Records of what Taxiarch itself passes on, what drives it, and how senders are linked to visualisers. */
import type { NumberingBase, Protocol, WireUniverse } from '../address';
import type { Delivery, Row } from './records';

/** How the inputs of a route become one: by level, by time, by priority, or the first of them that is heard. */
export const ROUTE_MERGES = ['htp', 'ltp', 'priority', 'backup'] as const;
export type RouteMerge = (typeof ROUTE_MERGES)[number];

/** One universe that comes into a route. */
export interface RouteInput {
  readonly wire: WireUniverse;
  /** Name or address of the one sender that counts; empty for all senders merged */
  readonly sender: string;
  /** Channels by which its slots move up, −511–511; what would leave 1–512 is dropped */
  readonly shift: number;
  /** 0–200, where inputs are merged by priority */
  readonly priority: number;
}

export const PLAIN_INPUT = { sender: '', shift: 0, priority: 100 } as const satisfies Partial<RouteInput>;

/** Most parts of a route: each needs an owner's mark of its own in a byte. */
export const MOST_PARTS = 128;

/** Slots of a route that do not pass through: held at a level by hand, or taken from another universe. */
export interface RoutePart {
  /** Channels, 1–512, both included */
  readonly first: number;
  readonly last: number;
  readonly by: 'hand' | 'input';
  /** Held by hand, 0–255 */
  readonly level: number;
  /** From an input: the universe, and its channel that goes to `first`; else null */
  readonly from: { readonly wire: WireUniverse; readonly channel: number } | null;
}

/** Universes heard that Taxiarch sends on as another one, while a person has the route running. */
export interface Route extends Row {
  readonly name: string;
  /** Order in lists, rising */
  readonly order: number;
  readonly inputs: readonly RouteInput[];
  readonly merge: RouteMerge;
  /** Merge `backup`: an input that returns takes over at once, or when a person says so. */
  readonly returns: 'at once' | 'by hand';
  readonly out: WireUniverse;
  /** Address of this computer that it leaves by; empty for the one in use */
  readonly interface: string;
  readonly delivery: Delivery;
  /** Dotted, for unicast */
  readonly addresses: readonly string[];
  /** sACN priority of what is sent, 0–200 */
  readonly priority: number;
  /** Scales all that passes through, 0–255 */
  readonly master: number;
  readonly parts: readonly RoutePart[];
  /** Switched on again when Taxiarch starts, if it ran when it ended */
  readonly comesBack: boolean;
}

export const PLAIN_ROUTE = {
  merge: 'htp',
  returns: 'at once',
  interface: '',
  delivery: 'usual',
  addresses: [],
  priority: 100,
  master: 255,
  parts: [],
  comesBack: false,
} as const satisfies Partial<Route>;

/** What an incoming channel moves: a route, all routes into a universe, or the intensity of a group's lamps in them. */
export type ControlTarget =
  | { readonly kind: 'route'; readonly id: string }
  | { readonly kind: 'universe'; readonly number: number }
  | { readonly kind: 'group'; readonly name: string };

/** A channel of another desk that drives something here. */
export interface Control extends Row {
  readonly name: string;
  readonly wire: WireUniverse;
  /** 1–512 */
  readonly channel: number;
  /** It scales its target, or switches a route on and off. */
  readonly does: 'master' | 'switch';
  readonly target: ControlTarget;
  /** A switch is on from this level up, 1–255. */
  readonly threshold: number;
}

/** Universes in a row of a link. */
export interface LinkLine {
  /** First show universe */
  readonly from: number;
  readonly count: number;
  /** The visualiser's own number for the first, as its display says it */
  readonly to: number;
}

/** Many visualisers look for senders only when they begin; some senders look for receivers only then. */
export const START_ORDERS = ['sender', 'visualiser', 'either'] as const;
export type StartOrder = (typeof START_ORDERS)[number];

/** A sender and the visualiser that is to show what it sends. */
export interface Link extends Row {
  readonly name: string;
  readonly sourceId: string;
  /** The visualiser */
  readonly machineId: string;
  readonly protocol: Protocol;
  /** What each display calls the first Art-Net universe */
  readonly senderBase: NumberingBase;
  readonly receiverBase: NumberingBase;
  readonly lines: readonly LinkLine[];
  /** Which of the two must be there before the other */
  readonly startsFirst: StartOrder;
  /** What a person answered to the doctor's questions: names of those found well */
  readonly well: readonly string[];
}
