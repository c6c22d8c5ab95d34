/** Sets a node by Art-Net and reads it back: packets one by one, then a poll, then what it says of itself. */
import { encodeIpProg, encodePoll } from '@taxiarch/core/artnet';

/** Between two packets: a node writes what it is told to its memory. */
const SPACING_MS = 20;
/** How long a node may take to answer, at its old address or a new one. */
const PATIENCE_MS = 2500;
const LOOK_MS = 25;
/** All pages of an answer come together; this is enough for the last. */
const PAGES_MS = 60;

export interface ProgrammerWire {
  send(bytes: Uint8Array, address: string): void;
  /** Asks everybody; a node that moved is found by this. */
  pollAll(): void;
  /** Where the node answers now, and when it last did; undefined if it never did. */
  whereIs(): { readonly address: string; readonly lastSeen: number } | undefined;
  now(): number;
}

const pause = (ms: number): Promise<void> => new Promise((done) => setTimeout(done, ms));

/** Resolves with a sentence if the node did not answer afterwards. */
export async function program(
  wire: ProgrammerWire,
  address: string,
  packets: readonly Uint8Array[],
): Promise<string | undefined> {
  for (const packet of packets) {
    wire.send(packet, address);
    await pause(SPACING_MS);
  }
  const asked = wire.now();
  wire.send(encodePoll(), address);
  let polledAll = false;
  for (;;) {
    await pause(LOOK_MS);
    const there = wire.whereIs();
    if (there && there.lastSeen > asked) {
      wire.send(encodeIpProg(), there.address);
      await pause(PAGES_MS);
      return undefined;
    }
    const waited = wire.now() - asked;
    if (waited > PATIENCE_MS) return `${address} did not answer afterwards. Look at its cable and its address.`;
    if (!polledAll && waited > PATIENCE_MS / 10) {
      polledAll = true;
      wire.pollAll();
    }
  }
}
