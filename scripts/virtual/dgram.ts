/**
 * `node:dgram` on a network that exists only in memory: what programs bind, join and send is as on this computer's
 * loopback, and arrives at once. For running the whole by a clock that is not real.
 */
import { EventEmitter } from 'node:events';

const ANY = '0.0.0.0';
const BROADCAST = '127.255.255.255';
const isGroup = (address: string): boolean => /^2(2[4-9]|3\d)\./.test(address);
const isOurs = (address: string): boolean => address === ANY || address.startsWith('127.') || isGroup(address);

/** By UDP port, in the order in which they were bound */
const bound = new Map<number, Set<Socket>>();
/** How many sockets are in each multicast group */
const members = new Map<string, number>();
const travelling: { bytes: Buffer; from: string; fromPort: number; to: string; port: number }[] = [];
let nextPort = 40_000;

type Done = (error: Error | null) => void;
const failure = (code: string, address: string, port: number): Error =>
  Object.assign(new Error(`bind ${code} ${address}:${port}`), { code, address, port });

class Socket extends EventEmitter {
  private at = ANY;
  private onPort = 0;
  private readonly groups = new Set<string>();
  private open = true;

  constructor(private readonly type: string) {
    super();
    // Many wait for its end.
    this.setMaxListeners(0);
  }

  bind(port: number, address: string, done?: () => void): this {
    if (this.type !== 'udp4' || !isOurs(address)) {
      queueMicrotask(() => this.emit('error', failure('EADDRNOTAVAIL', address, port)));
      return this;
    }
    this.at = address;
    this.onPort = port || (nextPort += 1);
    bound.set(this.onPort, (bound.get(this.onPort) ?? new Set()).add(this));
    queueMicrotask(() => done?.());
    return this;
  }

  send(bytes: Uint8Array, port: number, to: string, done?: Done): void {
    if (!this.open) throw new Error('Not running');
    const from = this.at === ANY || isGroup(this.at) ? '127.0.0.1' : this.at;
    if (travelling.length === 0) queueMicrotask(arrive);
    travelling.push({ bytes: Buffer.from(bytes), from, fromPort: this.onPort, to, port });
    if (done) queueMicrotask(() => done(null));
  }

  address() {
    return { address: this.at, port: this.onPort, family: 'IPv4' };
  }

  addMembership(group: string): void {
    if (this.groups.has(group)) throw Object.assign(new Error('addMembership EADDRINUSE'), { code: 'EADDRINUSE' });
    this.groups.add(group);
    members.set(group, (members.get(group) ?? 0) + 1);
  }

  dropMembership(group: string): void {
    if (this.groups.delete(group)) members.set(group, members.get(group)! - 1);
  }

  close(done?: () => void): this {
    if (!this.open) return this;
    this.open = false;
    for (const group of [...this.groups]) this.dropMembership(group);
    bound.get(this.onPort)?.delete(this);
    queueMicrotask(() => {
      this.emit('close');
      done?.();
    });
    return this;
  }

  get where(): string {
    return this.at;
  }

  setBroadcast(): void {}
  setMulticastInterface(): void {}
  setMulticastLoopback(): void {}
  setMulticastTTL(): void {}
  setTTL(): void {}
  setRecvBufferSize(): void {}
  ref(): this {
    return this;
  }
  unref(): this {
    return this;
  }
}

/** Who gets a packet: groups and broadcast all that share the port; unicast the one that took the address last. */
function receivers(to: string, port: number): Socket[] {
  const all = [...(bound.get(port) ?? [])];
  const onAll = all.filter(({ where }) => where === ANY);
  if (isGroup(to)) return (members.get(to) ?? 0) > 0 ? [...all.filter(({ where }) => where === to), ...onAll] : [];
  if (to === BROADCAST) return [...all.filter(({ where }) => where === BROADCAST), ...onAll];
  const last = all.filter(({ where }) => where === to).at(-1) ?? onAll.at(-1);
  return last ? [last] : [];
}

function arrive(): void {
  for (const { bytes, from, fromPort, to, port } of travelling.splice(0))
    for (const socket of receivers(to, port))
      socket.emit('message', bytes, { address: from, port: fromPort, family: 'IPv4', size: bytes.length });
}

export const createSocket = (options: string | { readonly type: string }): Socket =>
  new Socket(typeof options === 'string' ? options : options.type);
