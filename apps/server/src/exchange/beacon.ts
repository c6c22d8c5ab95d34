/** Stations found by mDNS on one interface, and this one announced there (RFC 6762, RFC 6763). */
import multicastDns, { type MulticastDNS, type ResponsePacket } from 'multicast-dns';
import { groupOf, groupService, instanceName, Xchange } from '@taxiarch/core/xchange';

export interface Announced {
  readonly name: string;
  readonly stationId: string;
  readonly group: string;
  readonly address: string;
  readonly port: number;
}

export interface Sighted extends Announced {
  /** 0: it says that it goes */
  readonly ttl: number;
}

type Records = ResponsePacket['answers'];
const TTL_S = 120;
const ASK_FIRST_MS = 1000;
const GOODBYE_MS = 500;
const ASK_EVERY_MS = 15_000;

/** The records that tell of a station, all living for `ttl` seconds. */
function recordsOf({ name, stationId, group, address, port }: Announced, ttl: number): Records {
  const instance = instanceName(name, group);
  const target = `${stationId}.local`;
  return [
    { name: Xchange.SERVICE, type: 'PTR', ttl, data: instance },
    { name: groupService(group), type: 'PTR', ttl, data: instance },
    { name: instance, type: 'SRV', ttl, data: { port, target, priority: 0, weight: 0 } },
    { name: instance, type: 'TXT', ttl, data: [`StationName=${name}`, `StationUUID=${stationId}`] },
    { name: target, type: 'A', ttl, data: address },
  ];
}

function textOf(data: unknown, key: string): string {
  const entries = (Array.isArray(data) ? data : [data]) as unknown[];
  for (const entry of entries) {
    const text = Buffer.isBuffer(entry) ? entry.toString('utf8') : typeof entry === 'string' ? entry : '';
    if (text.toLowerCase().startsWith(`${key.toLowerCase()}=`)) return text.slice(key.length + 1);
  }
  return '';
}

/** The stations that a response tells of; `from` is where it came from, for those that give no address. */
export function readSightings({ answers, additionals }: Pick<ResponsePacket, 'answers' | 'additionals'>, from: string) {
  const all = [...answers, ...additionals];
  const found: Sighted[] = [];
  for (const one of all) {
    if (one.type !== 'SRV') continue;
    const group = groupOf(one.name);
    if (group === undefined) continue;
    const text = all.find((other) => other.type === 'TXT' && other.name.toLowerCase() === one.name.toLowerCase());
    const data = text?.type === 'TXT' ? text.data : [];
    const stationId = textOf(data, 'StationUUID').replace(/[{}]/g, '').toLowerCase();
    if (!/^[0-9a-f-]{36}$/.test(stationId)) continue;
    const target = all.find((other) => other.type === 'A' && other.name === one.data.target);
    found.push({
      name: textOf(data, 'StationName').slice(0, Xchange.LONGEST_NAME) || (one.name.split('.')[0] ?? ''),
      stationId,
      group,
      address: target?.type === 'A' ? target.data : from,
      port: one.data.port,
      ttl: one.ttl ?? TTL_S,
    });
  }
  return found;
}

export class Beacon {
  private readonly mdns: MulticastDNS;
  private readonly timers: NodeJS.Timeout[] = [];
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
    this.mdns.on('query', ({ questions }) => {
      const asked = new Set(recordsOf(me, TTL_S).map(({ name }) => name.toLowerCase()));
      if (!this.ended && questions.some(({ name }) => asked.has(name.toLowerCase()))) this.announce(TTL_S);
    });
    this.mdns.on('response', (response, { address }) => {
      for (const one of readSightings(response, address)) if (one.stationId !== me.stationId) seen(one);
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
    const [pointer, byGroup, ...rest] = recordsOf(this.me, ttl);
    this.mdns.respond({ answers: [pointer!, byGroup!], additionals: rest }, said);
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
