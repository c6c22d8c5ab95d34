/** Sets a node by Art-Net and reads it back: packets one by one, then a poll, then what it says of itself. */
import { encodeIpProg, encodePoll } from '@taxiarch/core/protocol/artnet';

/** Between two packets: a node writes what it is told to its memory. */
const SPACING_MS = 20;
/** How long a node may take to answer, at its old address or a new one. */
const PATIENCE_MS = 2500;
const LOOK_MS = 25;
/** Devices may spread the pages of their answer over a second (Art-Net 4, ArtPollReply). */
const PAGES_MS = 1200;
/** A poll or its answer may be lost: it is asked again this often. */
const ASK_AGAIN_MS = 400;
/** What it says of its mask comes at once. */
const MASK_MS = 60;

export interface ProgrammerWire {
  send(bytes: Uint8Array, address: string): void;
  /** Asks everybody; a node that moved is found by this. */
  pollAll(): void;
  /** Where the node answers now, and when it last did; undefined if it never did. */
  whereIs(): { readonly address: string; readonly lastSeen: number } | undefined;
  /** Whether every page that it is known to have was heard after `since` */
  allPagesSince(since: number): boolean;
  now(): number;
}

const pause = (ms: number): Promise<void> => new Promise((done) => setTimeout(done, ms));

/** Sends packets and reads the node back, all its pages; without packets it is only read. Resolves with a sentence if it did not answer. */
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
  let askedAgain = asked;
  wire.send(encodePoll(), address);
  let answeredAt: number | undefined;
  for (;;) {
    await pause(LOOK_MS);
    const now = wire.now();
    const there = wire.whereIs();
    if (there && there.lastSeen > asked) {
      answeredAt ??= now;
      if (wire.allPagesSince(asked) || now - answeredAt > PAGES_MS) {
        wire.send(encodeIpProg(), there.address);
        await pause(MASK_MS);
        return undefined;
      }
    } else if (now - asked > PATIENCE_MS) return `${address} does not answer. Look at its cable and its address.`;
    if (now - askedAgain > ASK_AGAIN_MS) {
      askedAgain = now;
      wire.pollAll();
    }
  }
}
