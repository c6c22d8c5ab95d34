/** The twelve bytes that most Art-Net packets begin with: identifier, OpCode (little-endian), version. */
import { readU16, startsWith, writeU16 } from '../../base/bytes';
import { refuse, type Refused } from '../../base/result';
import * as A from './constants';

/** Why bytes are not an Art-Net packet we read: by name and in a sentence. */
const REJECTIONS = {
  'too-short': 'The packet is shorter than its kind is.',
  'not-artnet': 'It does not begin with Art-Net’s identifier.',
  'unknown-opcode': 'It is of a kind that is not read.',
  'old-version': 'It is of a protocol version before 14.',
  'bad-length': 'Its count of slots is none that DMX has, or not that of the packet.',
  'bad-port-count': 'It tells more ports than a page has.',
} as const;
export type ArtNetRejection = keyof typeof REJECTIONS;

export const refuseArtNet = (reason: ArtNetRejection): Refused<ArtNetRejection> => refuse(reason, REJECTIONS[reason]);

/** Length of identifier and OpCode; a PollReply has no version after it. */
export const OPCODE_END = 10;

/** The OpCode, or a rejection. */
export function readOpCode(bytes: Uint8Array): number | ArtNetRejection {
  if (bytes.length < OPCODE_END) return 'too-short';
  if (!startsWith(bytes, A.ARTNET_ID)) return 'not-artnet';
  return bytes[8]! | (bytes[9]! << 8);
}

/** Checks that a packet has this OpCode, at least `shortest` bytes, and version 14 or later. */
export function refuseHeader(bytes: Uint8Array, opCode: number, shortest: number): ArtNetRejection | undefined {
  const found = readOpCode(bytes);
  if (typeof found === 'string') return found;
  if (found !== opCode) return 'unknown-opcode';
  if (bytes.length < shortest) return 'too-short';
  if (opCode !== A.OpPollReply && readU16(bytes, OPCODE_END) < A.PROTOCOL_VERSION) return 'old-version';
  return undefined;
}

/** A new packet with its header written. */
export function newPacket(opCode: number, length: number): Uint8Array {
  const bytes = new Uint8Array(length);
  bytes.set(A.ARTNET_ID, 0);
  bytes[8] = opCode & 0xff;
  bytes[9] = opCode >> 8;
  if (opCode !== A.OpPollReply) writeU16(bytes, OPCODE_END, A.PROTOCOL_VERSION);
  return bytes;
}

/** Four bytes as a dotted address, and back. */
export const readIp = (bytes: Uint8Array, at: number): string => bytes.subarray(at, at + 4).join('.');

export function writeIp(bytes: Uint8Array, at: number, ip: string): void {
  ip.split('.')
    .slice(0, 4)
    .forEach((part, i) => (bytes[at + i] = Number(part) & 0xff));
}
