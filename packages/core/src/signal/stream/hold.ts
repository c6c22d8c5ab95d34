/** Whether levels that came in are shown at once or wait for their synchronisation packet. */

/** E1.31-2018, table A-1: E131_NETWORK_DATA_LOSS_TIMEOUT, for synchronisation too (6.2.4.1). */
const SACN_SYNC_LOST_MS = 2500;
/** Art-Net 4, ArtSync: a node goes back to acting at once after 4 s without one. */
const ARTNET_SYNC_LOST_MS = 4000;

export type SyncAct = 'act' | 'hold';

/**
 * E1.31-2018: data with a synchronisation address waits for that universe's packet (6.2.4), once one
 * was heard at all (11.1). When they stop, Force_Synchronization (6.2.6) says whether levels run on
 * unsynchronised (set) or stand until synchronisation returns (clear).
 * `lastSync` is when the last one was heard, in the clock of `now` (ms); −Infinity if never.
 */
export function sacnSync(syncAddress: number, forceSync: boolean, lastSync: number, now: number): SyncAct {
  if (syncAddress === 0 || lastSync === -Infinity) return 'act';
  return now - lastSync <= SACN_SYNC_LOST_MS || !forceSync ? 'hold' : 'act';
}

/**
 * Art-Net 4: levels wait while ArtSync comes from their own sender, unless the receiver merges
 * several; `sources` is how many it hears.
 */
export function artnetSync(sources: number, lastSync: number, now: number): SyncAct {
  return sources === 1 && now - lastSync <= ARTNET_SYNC_LOST_MS ? 'hold' : 'act';
}
