/** Consoles to measure with, whole sACN packets sent at a steady pace, and the sockets that hear them. */
import type { Socket } from 'node:dgram';
import { setPriority } from 'node:os';

/** Where the levels begin in a packet */
export const SLOTS_AT = 126;
/** 638 bytes, 66 of headers, preamble and gap: 704 bytes at 10⁹ bits a second */
const LINK_PER_MS = 177;
/** A switch stores this much of a link's traffic, and lets it go at once. */
const LINK_MOST_MS = 4;

/** A packet of 512 slots at priority 100; its sequence number stands in byte 111. */
export function packet(universe: number): Buffer {
  const bytes = Buffer.alloc(638);
  const u16 = (at: number, value: number) => bytes.writeUInt16BE(value, at);
  u16(0, 0x10);
  bytes.write('ASC-E1.17', 4);
  u16(16, 0x7000 | (638 - 16));
  bytes.writeUInt32BE(4, 18);
  bytes.fill(0x5a, 22, 38);
  u16(38, 0x7000 | (638 - 38));
  bytes.writeUInt32BE(2, 40);
  bytes.write('Measuring desk', 44);
  bytes[108] = 100;
  u16(113, universe);
  u16(115, 0x7000 | (638 - 115));
  bytes.set([2, 0xa1, 0, 0, 0, 1, 2, 1], 117);
  return bytes;
}

/** Lets a socket hold as many packets as the system allows, as the engine's sockets do. */
export function enlarge(socket: Socket): void {
  for (const megabytes of [32, 16, 8, 4, 2]) {
    try {
      return socket.setRecvBufferSize(megabytes * 1024 * 1024);
    } catch {
      // This system does not allow so much.
    }
  }
}

/**
 * Calls `send` so many times a second for so many milliseconds; resolves to how often. It stands for
 * consoles with processors of their own at the far end of a gigabit link: this thread runs before
 * others where that is allowed, and when it falls behind all the same it catches up no faster than
 * such a link carries packets.
 */
export function steadily(aSecond: number, lasting: number, send: () => void): Promise<number> {
  if (process.platform === 'linux') {
    try {
      setPriority(0, -20);
    } catch {
      // Only administrators may.
    }
  }
  return new Promise((done) => {
    const begun = performance.now();
    let last = 0;
    let sent = 0;
    const step = () => {
      const now = performance.now() - begun;
      if (now > lasting) return done(sent);
      // What a link did not carry while it was idle it cannot carry later in no time.
      const most = sent + Math.min(now - last, LINK_MOST_MS) * LINK_PER_MS;
      last = now;
      for (; sent < Math.min((now * aSecond) / 1000, most); sent += 1) send();
      // It sleeps between its bursts, as a console does; spinning would take the receiver's core.
      setTimeout(step, 1);
    };
    step();
  });
}
