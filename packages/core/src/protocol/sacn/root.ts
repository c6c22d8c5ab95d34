/** The ACN root layer that every sACN packet begins with (ANSI E1.31-2018, clause 5). */
import { readU16, readU32, startsWith, writeU16, writeU32 } from '../../base/bytes';
import { refuse, type Refused } from '../../base/result';
import * as C from './constants';

/** Why bytes are not an sACN packet we read: by name and in a sentence. */
const REJECTIONS = {
  'too-short': 'The packet is shorter than the layers that it begins.',
  'not-sacn': 'It does not begin as an ACN packet does.',
  'wrong-length': 'The length of a layer is not that of the packet.',
  'unknown-root-vector': 'Its root layer carries something other than E1.31.',
  'unknown-framing-vector': 'Its framing layer carries nothing that is known.',
  'bad-dmp-layer': 'Its DMP layer is not as the standard has it.',
  'bad-universe': 'Its universe is none that may carry levels.',
  'bad-priority': 'Its priority is above 200.',
  'bad-discovery-list': 'Its list of universes is out of order or out of range.',
} as const;
export type SacnRejection = keyof typeof REJECTIONS;

export const refuseSacn = (reason: SacnRejection): Refused<SacnRejection> => refuse(reason, REJECTIONS[reason]);

export const ROOT_LENGTH = 38;
const FLAGS = 0x7000;

/** Writes flags and length of a layer that begins at `at` and runs to the packet's end. */
export const writeFlagsAndLength = (bytes: Uint8Array, at: number): void =>
  writeU16(bytes, at, FLAGS | (bytes.length - at));

/** Length of a layer's PDU, or −1 if its flags are not those of clause 5.4. */
export function layerLength(bytes: Uint8Array, at: number): number {
  const word = readU16(bytes, at);
  return (word & 0xf000) === FLAGS ? word & 0x0fff : -1;
}

export function writeRoot(bytes: Uint8Array, vector: number, cid: Uint8Array): void {
  writeU16(bytes, 0, C.PREAMBLE_SIZE);
  writeU16(bytes, 2, C.POSTAMBLE_SIZE);
  bytes.set(C.ACN_PACKET_IDENTIFIER, 4);
  writeFlagsAndLength(bytes, 16);
  writeU32(bytes, 18, vector);
  bytes.set(cid.subarray(0, C.CID_LENGTH), 22);
}

/** Checks the root layer, which must reach to the packet’s end (5.4, no postamble: 5.2); returns its vector, or a rejection. */
export function readRoot(bytes: Uint8Array): number | SacnRejection {
  if (bytes.length < ROOT_LENGTH) return 'too-short';
  if (
    readU16(bytes, 0) !== C.PREAMBLE_SIZE ||
    readU16(bytes, 2) !== C.POSTAMBLE_SIZE ||
    !startsWith(bytes, C.ACN_PACKET_IDENTIFIER, 4)
  )
    return 'not-sacn';
  if (layerLength(bytes, 16) !== bytes.length - 16) return 'wrong-length';
  return readU32(bytes, 18);
}

/** The CID as the usual 8-4-4-4-12 text. */
export function formatCid(cid: Uint8Array): string {
  let hex = '';
  for (let i = 0; i < C.CID_LENGTH; i += 1) hex += (cid[i] ?? 0).toString(16).padStart(2, '0');
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-${hex.slice(12, 16)}-${hex.slice(16, 20)}-${hex.slice(20)}`;
}

/** Sixteen bytes from 8-4-4-4-12 text; what is not hex reads as zero. */
export function parseCid(text: string): Uint8Array {
  const hex = text.replace(/[^0-9a-f]/gi, '').padEnd(32, '0');
  return Uint8Array.from({ length: C.CID_LENGTH }, (_, i) => parseInt(hex.slice(i * 2, i * 2 + 2), 16));
}
