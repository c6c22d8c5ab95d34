/** Stations found by mDNS on one interface, and this one announced there (RFC 6762, RFC 6763). */
import multicastDns, { type MulticastDNS } from 'multicast-dns';
import {
  type Announced,
  recordsOf,
  type ServiceRecord,
  Sightings,
  type Sighted,
  TTL_S,
  Xchange,
} from '@taxiarch/core/protocol/xchange';

const ASK_FIRST_MS = 1000;
const GOODBYE_MS = 500;
const ASK_EVERY_MS = 15_000;

export class Beacon {
  private readonly mdns: MulticastDNS;
  private readonly timers: NodeJS.Timeout[] = [];
  private readonly sightings = new Sightings();
  private ended = false;

  /** `seen` is called for each station that tells of itself; `failed` when the interface refuses to work. */
  constructor(
    private readonly me: Announced,
    port: number,
    seen: (station: Sighted) => void,
    failed: (error: Error) => void,
  ) {
    // Bound to all addresses: a socket bound to its interface's own hears no multicast.
    this.mdns = multicastDns({ interface: me.address, bind: '0.0.0.0', port, loopback: true, reuseAddr: true });
    this.mdns.on('error', failed);
    this.mdns.on('warning', () => undefined);
    const { answers: pointers, additionals: records } = recordsOf(me);
    const own = new Set([...pointers, ...records].map(({ name }) => name.toLowerCase()));
    this.mdns.on('query', ({ questions }) => {
      if (!this.ended && questions.some(({ name }) => own.has(name.toLowerCase()))) this.announce(TTL_S);
    });
    this.mdns.on('response', ({ answers, additionals }, { address }) => {
      const { found, ask } = this.sightings.hear([...answers, ...additionals] as ServiceRecord[], address);
      for (const one of found) if (one.stationId !== me.stationId) seen(one);
      // Who tells only that it is there is asked where, and who it is.
      if (ask.length > 0 && !this.ended) this.mdns.query(ask);
    });
    this.mdns.on('ready', () => {
      const ask = () => {
        this.announce(TTL_S);
        this.mdns.query(Xchange.SERVICE, 'PTR');
      };
      ask();
      this.timers.push(setTimeout(ask, ASK_FIRST_MS), setInterval(ask, ASK_EVERY_MS));
    });
  }

  private announce(ttl: number, said?: () => void): void {
    this.mdns.respond(recordsOf(this.me, ttl), said);
  }

  /** Says goodbye and ends. */
  end(): Promise<void> {
    this.ended = true;
    for (const timer of this.timers) clearTimeout(timer);
    return new Promise((done) => {
      const over = () => this.mdns.destroy(() => done());
      // What is still to be sent would be lost with the socket; one that cannot send is not waited for.
      const late = setTimeout(over, GOODBYE_MS);
      this.announce(0, () => {
        clearTimeout(late);
        over();
      });
    });
  }
}
