/** Who synchronises which streams, and whether it comes as it should. */
import type { StreamReport, SyncReport, UniverseReport } from './report';

/** A frame at 44 Hz is 23 ms; a second without any is late. */
const LATE_MS = 1000;
/** E1.31-2018, 6.2.4.1: after the network data loss time-out synchronisation is lost. */
const MISSING_MS = 2500;

export interface SyncStanding {
  /** sACN universe of the packets; 0 for ArtSync */
  readonly universe: number;
  /** Undefined if streams ask for it and nobody was ever heard to send it */
  readonly source: (SyncReport & { readonly name: string }) | undefined;
  readonly state: 'steady' | 'late' | 'missing';
  /** Levels of a stream stand still for it now. */
  readonly waits: boolean;
  /** Keys of the universes whose streams it lets in */
  readonly keys: readonly number[];
}

/** What synchronises `streams`, which are those of one universe; `at` is when all this was so, Unix time in ms. */
export function syncsOf(
  streams: readonly StreamReport[],
  syncs: readonly SyncReport[],
  universes: readonly UniverseReport[],
  at: number,
): SyncStanding[] {
  const live = streams.filter(({ lost }) => !lost);
  const all = universes.flatMap(({ key, streams: there }) =>
    there.filter(({ lost }) => !lost).map((stream) => ({ key, stream })),
  );
  const stand = (
    universe: number,
    source: SyncReport | undefined,
    which: (stream: StreamReport) => boolean,
  ): SyncStanding => {
    const age = source ? at - source.lastSeen : Infinity;
    const mine = all.filter(({ stream }) => which(stream));
    const name = mine.find(({ stream }) => stream.cid === source?.cid && stream.address === source.address)?.stream
      .name;
    return {
      universe,
      source: source && { ...source, name: name ?? '' },
      state: age > MISSING_MS ? 'missing' : age > LATE_MS ? 'late' : 'steady',
      waits: live.some((stream) => which(stream) && stream.waits),
      keys: [...new Set(mine.map(({ key }) => key))],
    };
  };
  const addresses = [...new Set(live.map(({ syncAddress }) => syncAddress))].filter((address) => address > 0);
  const sacn = addresses.flatMap((address) => {
    const which = ({ syncAddress, cid }: StreamReport) => cid !== '' && syncAddress === address;
    const sources = syncs.filter(({ protocol, universe }) => protocol === 'sacn' && universe === address);
    return sources.length === 0
      ? [stand(address, undefined, which)]
      : sources.map((source) => stand(address, source, which));
  });
  const artnet = syncs
    .filter(
      (one) => one.protocol === 'artnet' && live.some(({ cid, address }) => cid === '' && address === one.address),
    )
    .map((source) => stand(0, source, ({ cid, address }) => cid === '' && address === source.address));
  return [...sacn, ...artnet];
}
