/** ArtPoll: "who is there?" (Art-Net 4, ArtPoll). */
import { readU16, writeU16 } from '../../base/bytes';
import { ok, type Result } from '../../base/result';
import * as A from './constants';
import { refuseArtNet, newPacket, refuseHeader, type ArtNetRejection } from './header';

export interface ArtPoll {
  readonly kind: 'poll';
  /** TalkToMe flags as they stand on the wire; bit 5 asks for targeted mode. */
  readonly flags: number;
  readonly diagnosticsPriority: number;
  /** Targeted mode: highest and lowest Port-Address asked for. */
  readonly targetTop: number;
  readonly targetBottom: number;
  readonly estaManufacturer: number;
  readonly oem: number;
}

const POLL_LENGTH = 22;
/** Senders of older versions stop after the diagnostics priority. */
const SHORTEST_POLL = 14;
export const POLL_TARGETED = 0x20;
/** Flags bit 2: whoever polls wants diagnostics; bit 3: by unicast. */
export const POLL_DIAGNOSTICS = 0x04;
export const POLL_DIAGNOSTICS_UNICAST = 0x08;
/** Diagnostics of every priority from here on: DpLow */
export const LOWEST_PRIORITY = 0x10;
/** Flags bit 1: whoever polls wants a reply whenever something changes. */
export const POLL_REPLY_ON_CHANGE = 0x02;

export function decodePoll(bytes: Uint8Array): Result<ArtPoll, ArtNetRejection> {
  const reason = refuseHeader(bytes, A.OpPoll, SHORTEST_POLL);
  if (reason) return refuseArtNet(reason);
  const word = (at: number) => (bytes.length >= at + 2 ? readU16(bytes, at) : 0);
  return ok({
    kind: 'poll',
    flags: bytes[12]!,
    diagnosticsPriority: bytes[13]!,
    targetTop: word(14),
    targetBottom: word(16),
    estaManufacturer: word(18),
    oem: word(20),
  });
}

export function encodePoll(message: Partial<Omit<ArtPoll, 'kind'>> = {}): Uint8Array {
  const bytes = newPacket(A.OpPoll, POLL_LENGTH);
  bytes[12] = message.flags ?? 0;
  bytes[13] = message.diagnosticsPriority ?? 0;
  writeU16(bytes, 14, message.targetTop ?? 0);
  writeU16(bytes, 16, message.targetBottom ?? 0);
  writeU16(bytes, 18, message.estaManufacturer ?? 0);
  writeU16(bytes, 20, message.oem ?? A.OEM_UNKNOWN);
  return bytes;
}
