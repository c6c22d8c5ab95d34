/** Who announces which sACN universes (ANSI E1.31-2018, clause 8). */
import type { DiscoveryReport } from '@taxiarch/core/stream';
import { formatCid, Sacn, type SacnDiscovery } from '@taxiarch/core/sacn';

interface Announcer {
  readonly cid: string;
  name: string;
  address: string;
  pages: readonly (readonly number[])[];
  lastSeen: number;
}

/** An announcement holds for two intervals and a little; then its sender has stopped announcing. */
const FORGET_MS = 2.5 * Sacn.E131_E131_UNIVERSE_DISCOVERY_INTERVAL_MS;

export class Discovered {
  private readonly announcers = new Map<string, Announcer>();

  note({ cid, sourceName, page, lastPage, universes }: SacnDiscovery, address: string, now: number): void {
    const key = formatCid(cid);
    const known = this.announcers.get(key);
    const pages = Array.from({ length: lastPage + 1 }, (_, i) => (i === page ? universes : (known?.pages[i] ?? [])));
    this.announcers.set(key, { cid: key, name: sourceName, address, pages, lastSeen: now });
  }

  report(now: number, epoch: number): DiscoveryReport[] {
    for (const [key, { lastSeen }] of this.announcers) if (now - lastSeen > FORGET_MS) this.announcers.delete(key);
    return [...this.announcers.values()].map(({ cid, name, address, pages, lastSeen }) => ({
      cid,
      name,
      address,
      universes: pages.flat(),
      lastSeen: Math.round(lastSeen + epoch),
    }));
  }
}
