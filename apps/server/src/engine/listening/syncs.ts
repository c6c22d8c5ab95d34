/** Who synchronises: sACN synchronisation packets by universe (ANSI E1.31-2018, 6.3, 11), ArtSync by sender. */
import { StreamAccount, type SyncReport } from '@taxiarch/core/signal/stream';
import { formatCid, type SacnSync } from '@taxiarch/core/protocol/sacn';
import type { Protocol } from '@taxiarch/core/base/address';

interface Source {
  readonly protocol: Protocol;
  /** sACN universe that the packets carry; 0 for ArtSync */
  readonly universe: number;
  readonly cid: string;
  address: string;
  readonly account: StreamAccount;
  via: number;
}

/** Sources told apart; when there are more, the one that is silent for longest makes room, once it is for a minute. */
const MOST_SOURCES = 512;
const REMEMBERED_MS = 60_000;

export class Syncs {
  private readonly sources = new Map<string, Source>();
  /** When the last packet for each universe came. It is never forgotten: levels may have to stand until the next one (6.2.6). */
  private readonly lastOn = new Map<number, number>();

  /** `full` is told when a source finds no room. */
  constructor(private readonly full: () => void) {}

  /** Notes a packet; false if its sequence says that it came late or twice (6.3.2) and must not release anything. */
  sacn({ cid, sequence, syncAddress }: SacnSync, address: string, now: number): boolean {
    const source = this.source('sacn', syncAddress, formatCid(cid), address, now);
    if (!source) return false;
    source.address = address;
    if (!source.account.note(now, sequence, true)) return false;
    this.lastOn.set(syncAddress, now);
    return true;
  }

  /** `via` is the socket by which it came. */
  artnet(address: string, via: number, now: number): void {
    const source = this.source('artnet', 0, '', address, now);
    source?.account.note(now, 0, true);
    if (source) source.via = via;
  }

  private source(protocol: Protocol, universe: number, cid: string, address: string, now: number): Source | undefined {
    const key = protocol === 'sacn' ? `${universe} ${cid}` : address;
    const known = this.sources.get(key);
    if (known) return known;
    if (this.sources.size >= MOST_SOURCES && !this.makeRoom(now)) {
      this.full();
      return undefined;
    }
    const made = { protocol, universe, cid, address, account: new StreamAccount(protocol, now), via: 0 };
    this.sources.set(key, made);
    return made;
  }

  /** When the last packet for this universe came; −Infinity if none ever did. */
  lastSacn(universe: number): number {
    return this.lastOn.get(universe) ?? -Infinity;
  }

  /** When a sender’s last ArtSync came, and by which socket; undefined if none ever did. */
  lastArtNet(address: string): { readonly at: number; readonly via: number } | undefined {
    const source = this.sources.get(address);
    return source && { at: source.account.lastSeen, via: source.via };
  }

  private makeRoom(now: number): boolean {
    const [key, { account }] = [...this.sources].reduce((a, b) =>
      b[1].account.lastSeen < a[1].account.lastSeen ? b : a,
    );
    return now - account.lastSeen > REMEMBERED_MS && this.sources.delete(key);
  }

  report(now: number, epoch: number): SyncReport[] {
    return [...this.sources.values()].map(({ protocol, universe, cid, address, account }) => ({
      protocol,
      universe,
      cid,
      address,
      rate1: account.rate1(now),
      missing: account.missing,
      late: account.late + account.repeats,
      firstSeen: Math.round(account.firstSeen + epoch),
      lastSeen: Math.round(account.lastSeen + epoch),
    }));
  }
}
