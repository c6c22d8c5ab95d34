/** Text messages of the feed. Values per slot never travel so: see `frames.ts`. */
import { SLOTS } from '../../../base/address';
import type { Edit } from '../../../show/edit';
import type { LiveReport } from '../live';

/** Universe keys for what a route sends: this and the route's `row`. */
export const ROUTE_KEYS = 0x20000;
/** Most routes told apart at once */
export const MOST_ROUTES = 512;
/** Most universes that one client looks at */
export const MOST_WATCHED = 512;

/** A client that has said `here` once says it again in answer to every `there`; one that stops is gone. */
export const BEAT_MS = 1000;
/** Silence after which the other side counts as gone, ms. */
export const SILENCE_MS = 3000;

/** A report as the feed brings it: nodes are null when they are as they were last told. */
export type LiveNews = Omit<LiveReport, 'nodes'> & { readonly nodes: LiveReport['nodes'] | null };

/** Server to client. */
export type FeedText =
  | { readonly type: 'live'; readonly live: LiveNews }
  | { readonly type: 'edit'; readonly edit: Edit }
  /** An edit too large to be told, or one that a slow client missed: the show is to be read anew. */
  | { readonly type: 'reread'; readonly seq: number }
  /** First of all: the name under which reports tell what this client holds */
  | { readonly type: 'you'; readonly holder: string }
  /** Once a second: the connection stands. */
  | { readonly type: 'there' };

/** Client to server. */
export type FeedRequest =
  | { readonly type: 'watch'; readonly keys: readonly number[] }
  | { readonly type: 'inspect'; readonly key: number; readonly slot: number }
  | { readonly type: 'inspect'; readonly key: null }
  /** The answer to `there` */
  | { readonly type: 'here' };

const isKey = (key: unknown): key is number =>
  Number.isInteger(key) && (key as number) >= 0 && (key as number) < ROUTE_KEYS + MOST_ROUTES;

const isSlot = (slot: unknown): slot is number =>
  Number.isInteger(slot) && (slot as number) >= 0 && (slot as number) < SLOTS;

/** Any text at all: what a client asks, or nothing if it asks nothing that is known. */
export function readFeedRequest(text: string): FeedRequest | undefined {
  let request: Partial<Record<string, unknown>> | null;
  try {
    request = JSON.parse(text) as typeof request;
  } catch {
    return undefined;
  }
  if (typeof request !== 'object' || request === null) return undefined;
  const { type, keys, key, slot } = request;
  if (type === 'here') return { type };
  if (type === 'watch' && Array.isArray(keys) && keys.every(isKey)) return { type, keys: keys.slice(0, MOST_WATCHED) };
  if (type === 'inspect' && key === null) return { type, key: null };
  if (type === 'inspect' && isKey(key) && isSlot(slot)) return { type, key, slot };
  return undefined;
}
