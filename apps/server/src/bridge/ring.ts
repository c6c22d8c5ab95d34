/**
 * Packets on their way from the thread that receives to the thread that keeps the account: a ring in
 * memory shared by both, so that neither a slow moment of the account nor its garbage costs a packet.
 */
import type { Protocol } from '@taxiarch/core/base/address';

const STATE_BYTES = 64;
/**
 * Before each packet: arrival (float64), address (uint32), port (uint16), length (uint16), protocol (uint8), socket (uint8),
 * length of the sender's address as text (uint8, 0 for IPv4), filler. That text stands before the packet.
 */
const HEADER = 24;
const SKIP_TO_START = 0xffff;
const NO_TEXT = new Uint8Array(0);
const encoder = new TextEncoder();
const decoder = new TextDecoder();

/** Places of the counters in the shared state. */
const WRITTEN = 0;
const READ = 1;
const LOST = 2;
const ASLEEP = 3;

/** A packet as the reader sees it; overwritten by the next. */
export interface ReceivedPacket {
  bytes: Uint8Array;
  protocol: Protocol;
  /** By which socket of its protocol it came */
  via: number;
  /** The sender's IPv4 address as 32 bits, most significant first; an IPv6 address as text */
  address: number | string;
  port: number;
  /** Milliseconds on the reader's clock */
  at: number;
}

/** One thread writes, one reads. Positions count bytes round the ring; the writer never overtakes the reader. */
export class PacketRing {
  private readonly state: Int32Array;
  private readonly view: DataView;
  private readonly bytes: Uint8Array;
  private readonly size: number;
  private readonly packet: ReceivedPacket = {
    bytes: new Uint8Array(0),
    protocol: 'sacn',
    via: 0,
    address: 0,
    port: 0,
    at: 0,
  };

  constructor(memory: SharedArrayBuffer) {
    this.state = new Int32Array(memory, 0, STATE_BYTES / 4);
    this.view = new DataView(memory, STATE_BYTES);
    this.bytes = new Uint8Array(memory, STATE_BYTES);
    this.size = this.bytes.length;
  }

  /** Memory for a ring of `bytes`, a multiple of 8. */
  static memory(bytes: number): SharedArrayBuffer {
    return new SharedArrayBuffer(STATE_BYTES + bytes);
  }

  /** Puts a packet in; returns whether the reader sleeps and must be woken. A packet without room is counted as lost. */
  write(
    packet: Uint8Array,
    protocol: Protocol,
    via: number,
    address: number | string,
    port: number,
    at: number,
  ): boolean {
    const text = typeof address === 'string' ? encoder.encode(address) : NO_TEXT;
    const need = HEADER + ((text.length + packet.length + 7) & ~7);
    let from = this.state[WRITTEN]!;
    const read = Atomics.load(this.state, READ);
    const free = (read - from - 8 + this.size) % this.size;
    const tail = this.size - from;
    // Too little room before the end; or nothing waits, and the second half need never be touched.
    const toStart = tail < need || (from === read && from > this.size / 2 && tail + need <= free);
    if (packet.length >= SKIP_TO_START || (toStart ? tail + need : need) > free) {
      Atomics.add(this.state, LOST, 1);
      return false;
    }
    if (toStart) {
      if (tail >= HEADER) this.view.setUint16(from + 14, SKIP_TO_START);
      from = 0;
    }
    this.view.setFloat64(from, at);
    this.view.setUint32(from + 8, typeof address === 'string' ? 0 : address);
    this.view.setUint16(from + 12, port);
    this.view.setUint16(from + 14, packet.length);
    this.view.setUint8(from + 16, protocol === 'sacn' ? 0 : 1);
    this.view.setUint8(from + 17, via);
    this.view.setUint8(from + 18, text.length);
    if (text.length > 0) this.bytes.set(text, from + HEADER);
    this.bytes.set(packet, from + HEADER + text.length);
    Atomics.store(this.state, WRITTEN, (from + need) % this.size);
    return Atomics.compareExchange(this.state, ASLEEP, 1, 0) === 1;
  }

  /** Hands out up to `most` packets; returns how many there were. */
  drain(most: number, take: (packet: ReceivedPacket) => void): number {
    const { packet } = this;
    for (let count = 0; count < most; count += 1) {
      let from = this.state[READ]!;
      if (from === Atomics.load(this.state, WRITTEN)) return count;
      if (this.size - from < HEADER || this.view.getUint16(from + 14) === SKIP_TO_START) from = 0;
      const length = this.view.getUint16(from + 14);
      packet.at = this.view.getFloat64(from);
      const text = this.view.getUint8(from + 18);
      const body = from + HEADER + text;
      packet.address =
        text === 0 ? this.view.getUint32(from + 8) : decoder.decode(this.bytes.slice(from + HEADER, body));
      packet.port = this.view.getUint16(from + 12);
      packet.via = this.view.getUint8(from + 17);
      packet.protocol = this.view.getUint8(from + 16) === 0 ? 'sacn' : 'artnet';
      packet.bytes = this.bytes.subarray(body, body + length);
      take(packet);
      Atomics.store(this.state, READ, (from + HEADER + ((text + length + 7) & ~7)) % this.size);
    }
    return most;
  }

  /** The reader says that it sleeps and must be woken; returns false if something came in just then. */
  sleep(): boolean {
    Atomics.store(this.state, ASLEEP, 1);
    if (this.state[READ] === Atomics.load(this.state, WRITTEN)) return true;
    // If the writer saw us asleep, its call to wake up comes as well, and finds nothing left to do.
    Atomics.store(this.state, ASLEEP, 0);
    return false;
  }

  /** Packets that found no room since the ring was made. */
  get lost(): number {
    return Atomics.load(this.state, LOST);
  }
}

/** `10.0.0.1` as 32 bits. */
export function addressBits(text: string): number {
  let bits = 0;
  let part = 0;
  for (let i = 0; i < text.length; i += 1) {
    const code = text.charCodeAt(i);
    if (code === 46) {
      bits = (bits << 8) | part;
      part = 0;
    } else part = part * 10 + code - 48;
  }
  return ((bits << 8) | part) >>> 0;
}

export const addressText = (bits: number): string =>
  `${bits >>> 24}.${(bits >>> 16) & 0xff}.${(bits >>> 8) & 0xff}.${bits & 0xff}`;
