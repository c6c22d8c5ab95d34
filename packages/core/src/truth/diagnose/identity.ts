/** Who a stream is of: senders of the show as they are received, and others that use their names. */
import type { Sender } from '../../network/flow';
import { shortNameOf } from '../../network/node';
import type { ObservedStream } from '../simulate';
import type { StreamReport, UniverseReport } from '../../signal/stream';

export const isCalled = (name: string, stream: Pick<StreamReport, 'name'>): boolean =>
  name === stream.name || shortNameOf(name) === stream.name;

/** A sender is there as long as it was not silent for longer than this, ms. */
const THERE_MS = 1000;

/** Streams that are received under the name of a sender of the show and from an address of its own, by its id. */
export function genuineOf(
  universes: readonly UniverseReport[],
  senders: readonly Sender[],
  at: number,
): ReadonlyMap<string, Genuine> {
  const found = new Map<string, { keys: Set<number>; cids: Set<string> }>();
  for (const { key, streams } of universes)
    for (const stream of streams) {
      // One that moved to another address leaves streams behind that are not lost yet.
      if (stream.preview || stream.own || stream.lost || at - stream.lastSeen > THERE_MS) continue;
      for (const { id, name, addresses } of senders) {
        if (!isCalled(name, stream) || !addresses.includes(stream.address)) continue;
        const its = found.get(id) ?? { keys: new Set(), cids: new Set() };
        its.keys.add(key);
        if (stream.cid) its.cids.add(stream.cid);
        found.set(id, its);
      }
    }
  return found;
}
interface Genuine {
  /** Wire keys of the universes that it sends */
  readonly keys: ReadonlySet<number>;
  readonly cids: ReadonlySet<string>;
}

/**
 * Whose name a stream uses that is not that sender's: the sender is received from its own address, and this comes from
 * elsewhere with another component id, or beside it on the same universe.
 */
export function borrowedBy(
  stream: StreamReport,
  key: number,
  senders: readonly Sender[],
  genuine: ReadonlyMap<string, Genuine>,
): ObservedStream['borrows'] {
  const named = senders.find(({ name }) => isCalled(name, stream));
  const its = named && genuine.get(named.id);
  if (!its || named.addresses.includes(stream.address)) return undefined;
  const cid = its.cids.has(stream.cid);
  // Whoever sends other universes, and under no other component id, sends by another of its interfaces.
  return (cid || stream.cid === '') && !its.keys.has(key) ? undefined : { id: named.id, cid };
}
