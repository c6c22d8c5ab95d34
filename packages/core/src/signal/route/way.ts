/** What a route is to the mixer: inputs, how they become one, and slots that do not pass through. */
import type { WireUniverse } from '../../base/address';

/** How the inputs of a route become one: by level, by time, by priority, or the first of them that is heard. */
export const ROUTE_MERGES = ['htp', 'ltp', 'priority', 'backup'] as const;
export type RouteMerge = (typeof ROUTE_MERGES)[number];

/** Most parts of a route: each needs an owner's mark of its own in a byte. */
export const MOST_PARTS = 128;

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

export interface RouteWay {
  readonly inputs: readonly RouteInput[];
  readonly merge: RouteMerge;
  /** Merge `backup`: an input that returns takes over at once, or when a person says so. */
  readonly returns: 'at once' | 'by hand';
  readonly parts: readonly RoutePart[];
  readonly out: WireUniverse;
}
