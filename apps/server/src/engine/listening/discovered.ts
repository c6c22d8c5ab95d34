/** Who announces which sACN universes (ANSI E1.31-2018, clause 8); as much of it as is worth remembering. */
import { SACN_LAST } from '@taxiarch/core/base/address';
import { printable } from '@taxiarch/core/base/bytes';
import type { DiscoveryReport } from '@taxiarch/core/signal/stream';
import { formatCid, Sacn, type SacnDiscovery } from '@taxiarch/core/protocol/sacn';

interface Announcer {
  readonly cid: string;
  name: string;
  address: string;
  readonly pages: Map<number, Uint16Array>;
  lastSeen: number;
}

/** An announcement holds for two intervals and a little; then its sender has stopped announcing. */
const FORGET_MS = 2.5 * Sacn.E131_E131_UNIVERSE_DISCOVERY_INTERVAL_MS;
/** Who announces beyond this is not remembered. */
const MOST_ANNOUNCERS = 2048;
/** Numbers remembered of all together, in two bytes each; pages beyond are not. */
const MOST_NUMBERS = 1_000_000;
/** Reported one by one; of each the first of its universes */
export const ANNOUNCERS_REPORTED = 100;
const UNIVERSES_REPORTED = 64;

export class Discovered {
  private readonly announcers = new Map<string, Announcer>();
  private numbers = 0;
  /** Announcements come or went since the universes were last put together. */
  private stale = false;
  private all: readonly number[] = [];

  /** Returns whether there was room for it. */
  note({ cid, sourceName, page, lastPage, universes }: SacnDiscovery, address: string, now: number): boolean {
    const key = formatCid(cid);
    let known = this.announcers.get(key);
    if (!known) {
      if (this.announcers.size >= MOST_ANNOUNCERS) return false;
      known = { cid: key, name: sourceName, address, pages: new Map(), lastSeen: now };
      this.announcers.set(key, known);
    }
    Object.assign(known, { name: printable(sourceName), address, lastSeen: now });
    for (const other of known.pages.keys()) if (other > lastPage) this.drop(known, other);
    const before = known.pages.get(page);
    if (before?.length === universes.length && universes.every((universe, i) => universe === before[i])) return true;
    this.drop(known, page);
    if (this.numbers + universes.length > MOST_NUMBERS) return false;
    known.pages.set(page, Uint16Array.from(universes));
    this.numbers += universes.length;
    this.stale = true;
    return true;
  }

  private drop(announcer: Announcer, page: number): void {
    this.numbers -= announcer.pages.get(page)?.length ?? 0;
    if (announcer.pages.delete(page)) this.stale = true;
  }

  /** Forgets who has stopped announcing. */
  sweep(now: number): void {
    for (const [key, announcer] of this.announcers) {
      if (now - announcer.lastSeen <= FORGET_MS) continue;
      for (const page of announcer.pages.keys()) this.drop(announcer, page);
      this.announcers.delete(key);
    }
  }

  /** Every announced universe, rising. */
  universes(): readonly number[] {
    if (!this.stale) return this.all;
    this.stale = false;
    const there = new Uint8Array(SACN_LAST + 1);
    for (const { pages } of this.announcers.values())
      for (const universes of pages.values()) for (const universe of universes) there[universe] = 1;
    const all: number[] = [];
    for (let universe = 1; universe <= SACN_LAST; universe += 1) if (there[universe]) all.push(universe);
    this.all = all;
    return all;
  }

  get count(): number {
    return this.announcers.size;
  }

  report(epoch: number): DiscoveryReport[] {
    return [...this.announcers.values()]
      .slice(0, ANNOUNCERS_REPORTED)
      .map(({ cid, name, address, pages, lastSeen }) => {
        const inOrder = [...pages].sort(([a], [b]) => a - b).map(([, universes]) => universes);
        const universes: number[] = [];
        for (const page of inOrder)
          if (universes.length < UNIVERSES_REPORTED)
            universes.push(...page.slice(0, UNIVERSES_REPORTED - universes.length));
        return {
          cid,
          name,
          address,
          universes,
          count: inOrder.reduce((sum, page) => sum + page.length, 0),
          lastSeen: Math.round(lastSeen + epoch),
        };
      });
  }
}
