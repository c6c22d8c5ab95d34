/** What tells of a station on mDNS (RFC 6762, RFC 6763): made for our own, and put together for others. */
import { printable } from '../../base/bytes';
import { LONGEST_NAME, MOST_STATIONS, SERVICE } from './constants';
import { groupOf, groupService, instanceName } from './names';

export interface Announced {
  readonly name: string;
  readonly stationId: string;
  readonly group: string;
  /** Dotted */
  readonly address: string;
  readonly port: number;
}

export interface Sighted extends Announced {
  /** Seconds for which this holds; 0: it says that it goes */
  readonly ttl: number;
}

/** A resource record as far as it matters here; what does not fit is passed over. */
export interface ServiceRecord {
  readonly name: string;
  readonly type: string;
  readonly ttl?: number | undefined;
  readonly data?: unknown;
}

export interface ServiceQuestion {
  readonly name: string;
  readonly type: 'SRV' | 'TXT' | 'A';
}

/** Seconds for which what we tell holds. */
export const TTL_S = 120;

/** The records of a station: pointers as the answer, the rest beside it. */
export function recordsOf({ name, stationId, group, address, port }: Announced, ttl = TTL_S) {
  const instance = instanceName(name, group);
  const target = `${stationId}.local`;
  const pointer = (service: string) => ({ name: service, type: 'PTR' as const, ttl, data: instance });
  return {
    answers: [pointer(SERVICE), pointer(groupService(group))],
    additionals: [
      { name: instance, type: 'SRV' as const, ttl, data: { port, target, priority: 0, weight: 0 } },
      { name: instance, type: 'TXT' as const, ttl, data: [`StationName=${name}`, `StationUUID=${stationId}`] },
      { name: target, type: 'A' as const, ttl, data: address },
    ],
  };
}

/** The value of a key in a TXT record. */
function valueOf(data: unknown, key: string): string {
  for (const entry of (Array.isArray(data) ? data : [data]) as unknown[]) {
    const text = entry instanceof Uint8Array ? new TextDecoder().decode(entry) : typeof entry === 'string' ? entry : '';
    if (text.toLowerCase().startsWith(`${key.toLowerCase()}=`)) return text.slice(key.length + 1);
  }
  return '';
}

interface Service {
  readonly name: string;
  readonly port: number;
  readonly target: string;
  readonly ttl: number;
}

/** A map that forgets what it learnt first, so that no flood fills the memory. */
class Bounded<V> extends Map<string, V> {
  override set(key: string, value: V): this {
    this.delete(key);
    super.set(key, value);
    if (this.size > MOST_STATIONS) this.delete(this.keys().next().value!);
    return this;
  }
}

/** Puts stations together from records, which may come in one packet or in several. */
export class Sightings {
  private readonly services = new Bounded<Service>();
  private readonly texts = new Bounded<unknown>();
  private readonly addresses = new Bounded<string>();

  /** `from` is where the packet came from, for those that give no address. */
  hear(
    records: readonly ServiceRecord[],
    from: string,
  ): { readonly found: Sighted[]; readonly ask: ServiceQuestion[] } {
    const told = new Set<string>();
    const going = new Set<string>();
    // Of several addresses of a station the one from which it spoke can be reached: it stays as the last.
    const ordered = [...records].sort((a, b) => Number(a.data === from) - Number(b.data === from));
    for (const { name, type, ttl = TTL_S, data } of ordered) {
      const key = name.toLowerCase();
      // A goodbye may be said of the pointer alone.
      if (ttl === 0) going.add(type === 'PTR' && typeof data === 'string' ? data.toLowerCase() : key);
      if (type === 'A' && typeof data === 'string') this.addresses.set(key, data);
      else if (type === 'PTR' && groupOf(name) !== undefined && typeof data === 'string') told.add(data.toLowerCase());
      else if (groupOf(name) === undefined) continue;
      else if (type === 'TXT') {
        this.texts.set(key, data);
        told.add(key);
      } else if (type === 'SRV') {
        const { port, target } = (data ?? {}) as { port?: unknown; target?: unknown };
        if (typeof port !== 'number' || typeof target !== 'string') continue;
        this.services.set(key, { name, port, target, ttl });
        told.add(key);
      }
    }
    const found: Sighted[] = [];
    const ask: ServiceQuestion[] = [];
    for (const key of told) {
      const service = this.services.get(key);
      const text = this.texts.get(key);
      if (!service) ask.push({ name: key, type: 'SRV' });
      if (text === undefined) ask.push({ name: key, type: 'TXT' });
      if (!service || text === undefined) continue;
      const stationId = valueOf(text, 'StationUUID').replace(/[{}]/g, '').toLowerCase();
      if (!/^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/.test(stationId)) continue;
      found.push({
        name: printable(valueOf(text, 'StationName') || (service.name.split('.')[0] ?? ''), LONGEST_NAME),
        stationId,
        group: groupOf(service.name) ?? '',
        address: this.addresses.get(service.target.toLowerCase()) ?? from,
        port: service.port,
        ttl: going.has(key) ? 0 : service.ttl,
      });
      if (!going.has(key)) continue;
      this.services.delete(key);
      this.texts.delete(key);
    }
    return { found, ask };
  }
}
