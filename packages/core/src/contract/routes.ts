/** Routes as they run, and what is asked of them. */
import type { WireUniverse } from '../address';

/** Universe keys of the feed for what a route sends: this and the route's `row`. */
export const ROUTE_KEYS = 0x20000;
/** Most routes told apart at once */
export const MOST_ROUTES = 512;

export interface RouteReport {
  readonly id: string;
  /** {@link ROUTE_KEYS} and this is its key in the feed; its owners are those of core's route mixer. */
  readonly row: number;
  readonly running: boolean;
  /** Unix time of being switched on, ms; 0 while off */
  readonly since: number;
  readonly by: string;
  /** Of each input and of each part, whether it is heard */
  readonly inputs: readonly boolean[];
  readonly parts: readonly boolean[];
  /** Merge `backup`: the input let through, −1 for none */
  readonly current: number;
  /** Packets sent in the last second */
  readonly rate: number;
  /** Addresses or groups that it goes to */
  readonly to: readonly string[];
}

export interface ControlReport {
  readonly id: string;
  /** Level of its channel, 0–255; null while its universe is not heard */
  readonly level: number | null;
}

/** POST /api/routes/run */
export interface RunRoutesRequest {
  readonly ids: readonly string[];
  readonly on: boolean;
  readonly by: string;
}

/** POST /api/routes/learn: the fader that moved while others stood still. */
export interface LearnReply {
  readonly wire: WireUniverse;
  /** 1–512 */
  readonly channel: number;
  readonly level: number;
}
