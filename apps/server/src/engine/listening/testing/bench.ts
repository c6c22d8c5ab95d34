/** An ingest with simulated time. */
import { type ArtPoll } from '@taxiarch/core/protocol/artnet';
import { encodeData, type SacnData } from '@taxiarch/core/protocol/sacn';
import { Ingest } from '../ingest';
import { SharedLevels } from '../../../bridge/shared';
import { levelsFrom } from '../../../testing/wire';
import { LiveUniverse } from '../universe';

export const OWN = new Uint8Array(16).fill(0xee);

export const ROUTES = new Uint8Array(16).fill(0xed);

export const CID = new Uint8Array(16).fill(7);

export const TIMEOUT = 2500;

export function bench() {
  const shared = new SharedLevels();
  const discovered: number[] = [];
  const polls: ArtPoll[] = [];
  const came: number[] = [];
  const synced: number[] = [];
  const others: string[][] = [];
  const ingest = new Ingest(
    shared,
    (key, row, memory) => new LiveUniverse(key, row, memory),
    { taken: OWN, routes: ROUTES },
    {
      onLevels: (key) => came.push(key),
      onSyncAddress: (universe) => synced.push(universe),
      onUniverse: () => undefined,
      onDiscovered: ({ universes }) => discovered.push(...universes),
      onPoll: (poll) => polls.push(poll),
      onPollReply: () => undefined,
      onIpProgReply: () => undefined,
      onLamps: () => undefined,
      onOther: (kind, address, says) => others.push([kind, address, says]),
    },
  );
  const sequences = new Map<number, number>();
  const send = (now: number, from: number, over: Partial<SacnData> = {}) => {
    const sequence = ((sequences.get(from) ?? 0) + 1) & 0xff;
    sequences.set(from, sequence);
    const given = { cid: new Uint8Array(16).fill(from), sourceName: `Desk ${from}`, universe: 1, sequence };
    const message = levelsFrom({ ...given, slots: Uint8Array.of(from, from), ...over });
    ingest.sacn(Buffer.from(encodeData(message)), '127.0.0.21', 5568, now);
  };
  const at = (now: number, slot: number, key = 1): [number, number] => {
    const universe = ingest.universe(key)!;
    const values = new Uint8Array(512);
    const owners = new Uint8Array(512);
    universe.sweep(now, TIMEOUT);
    universe.merge(now, TIMEOUT);
    shared.read(universe.row, values, owners);
    return [values[slot]!, owners[slot]!];
  };
  return { ingest, send, at, discovered, polls, shared, came, synced, others };
}
