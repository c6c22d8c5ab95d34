/** RDM packets: to bytes and back (ANSI E1.20-2010, 6.2). Art-Net carries them without their start code. */
import { readU16, writeU16 } from '../../base/bytes';
import { ok, refuse, type Result } from '../../base/result';
import * as R from './constants';
import { readUid, writeUid, type Uid } from './uid';

export interface RdmPacket {
  readonly destination: Uid;
  readonly source: Uid;
  /** 0–255; an answer repeats that of its request */
  readonly transaction: number;
  /** Of a request the controller's port, 1–255; of an answer its type */
  readonly portOrType: number;
  /** Messages that a responder has waiting, 0–255 */
  readonly waiting: number;
  /** 0 is the root device */
  readonly subDevice: number;
  readonly commandClass: number;
  readonly pid: number;
  /** At most {@link R.MOST_DATA} bytes */
  readonly data: Uint8Array;
}

const REJECTIONS = {
  'too-short': 'It is shorter than an RDM packet.',
  'not-rdm': 'It does not begin with RDM’s start codes.',
  'bad-length': 'Its lengths do not fit each other or the packet.',
  'bad-checksum': 'Its checksum is wrong: it was damaged on its way.',
  'bad-class': 'Its command class is none that RDM has.',
} as const;
export type RdmRejection = keyof typeof REJECTIONS;

/** From the start code up to the parameter data, and the checksum behind it */
const HEADER = 24;
const CHECKSUM = 2;
const CLASSES: ReadonlySet<number> = new Set([
  R.DISCOVERY_COMMAND,
  R.DISCOVERY_COMMAND_RESPONSE,
  R.GET_COMMAND,
  R.GET_COMMAND_RESPONSE,
  R.SET_COMMAND,
  R.SET_COMMAND_RESPONSE,
]);

const refused = (reason: RdmRejection) => refuse(reason, REJECTIONS[reason]);

/** Unsigned 16-bit sum of all bytes from the start code on (ANSI E1.20, 6.2.11). */
const checksumOf = (bytes: Uint8Array): number => bytes.reduce((sum, byte) => (sum + byte) & 0xffff, 0);

/** Any bytes at all, start code first: a packet, or the name of the rule that they break. Never throws. */
export function decodeRdm(bytes: Uint8Array): Result<RdmPacket, RdmRejection> {
  if (bytes.length < HEADER + CHECKSUM) return refused('too-short');
  if (bytes[0] !== R.SC_RDM || bytes[1] !== R.SC_SUB_MESSAGE) return refused('not-rdm');
  const length = bytes[2]!;
  const dataLength = bytes[23]!;
  if (length < HEADER || bytes.length < length + CHECKSUM || dataLength !== length - HEADER)
    return refused('bad-length');
  if (readU16(bytes, length) !== checksumOf(bytes.subarray(0, length))) return refused('bad-checksum');
  const commandClass = bytes[20]!;
  if (!CLASSES.has(commandClass)) return refused('bad-class');
  return ok({
    destination: readUid(bytes, 3),
    source: readUid(bytes, 9),
    transaction: bytes[15]!,
    portOrType: bytes[16]!,
    waiting: bytes[17]!,
    subDevice: readU16(bytes, 18),
    commandClass,
    pid: readU16(bytes, 21),
    data: bytes.slice(HEADER, length),
  });
}

/** Start code first. Throws if there is more data than a packet holds. */
export function encodeRdm({ data, ...packet }: RdmPacket): Uint8Array {
  if (data.length > R.MOST_DATA) throw new RangeError(`An RDM packet holds at most ${R.MOST_DATA} bytes of data.`);
  const length = HEADER + data.length;
  const bytes = new Uint8Array(length + CHECKSUM);
  bytes.set([R.SC_RDM, R.SC_SUB_MESSAGE, length]);
  writeUid(bytes, 3, packet.destination);
  writeUid(bytes, 9, packet.source);
  bytes.set([packet.transaction, packet.portOrType, packet.waiting], 15);
  writeU16(bytes, 18, packet.subDevice);
  bytes[20] = packet.commandClass;
  writeU16(bytes, 21, packet.pid);
  bytes[23] = data.length;
  bytes.set(data, HEADER);
  writeU16(bytes, length, checksumOf(bytes.subarray(0, length)));
  return bytes;
}
