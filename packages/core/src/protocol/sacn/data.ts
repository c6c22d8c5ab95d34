/** The E1.31 data packet: framing layer of 6.2 and DMP layer of clause 7. */
import { SACN_FIRST, SACN_LAST, SLOTS } from '../../base/address';
import { readText, readU16, readU32, writeText, writeU16, writeU32 } from '../../base/bytes';
import { ok, type Result } from '../../base/result';
import * as C from './constants';
import { refuseSacn, layerLength, writeFlagsAndLength, writeRoot, type SacnRejection } from './root';

export interface SacnData {
  readonly kind: 'data';
  /** 16 bytes */
  readonly cid: Uint8Array;
  readonly sourceName: string;
  /** 0–200 */
  readonly priority: number;
  /** Universe on which a synchronisation packet releases this data; 0 for none. */
  readonly syncAddress: number;
  /** 0–255 */
  readonly sequence: number;
  readonly preview: boolean;
  readonly terminated: boolean;
  readonly forceSync: boolean;
  /** 1–63999 */
  readonly universe: number;
  /** 0x00 for levels, 0xDD for per-slot priority; others are read but not interpreted. */
  readonly startCode: number;
  /** 0–512 bytes, without the start code */
  readonly slots: Uint8Array;
}

/**
 * The fields of a data packet as the hot path reads them: written in place, no allocation.
 * Slots stay in the packet, from {@link C.DATA_HEADER_LENGTH} for `slotCount` bytes.
 */
export interface SacnDataFields {
  priority: number;
  syncAddress: number;
  sequence: number;
  options: number;
  universe: number;
  startCode: number;
  slotCount: number;
}

export const blankDataFields = (): SacnDataFields => ({
  priority: 0,
  syncAddress: 0,
  sequence: 0,
  options: 0,
  universe: 0,
  startCode: 0,
  slotCount: 0,
});

/** Reads a packet that has the data root vector into `into`; returns a rejection, or nothing. */
export function readDataFields(bytes: Uint8Array, into: SacnDataFields): SacnRejection | undefined {
  if (bytes.length < C.DATA_HEADER_LENGTH) return 'too-short';
  if (readU32(bytes, 40) !== C.VECTOR_E131_DATA_PACKET) return 'unknown-framing-vector';
  if (
    bytes[117] !== C.VECTOR_DMP_SET_PROPERTY ||
    bytes[118] !== C.DMP_ADDRESS_AND_DATA_TYPE ||
    readU16(bytes, 119) !== 0 ||
    readU16(bytes, 121) !== 1
  )
    return 'bad-dmp-layer';
  const count = readU16(bytes, 123);
  if (count < 1 || count > SLOTS + 1) return 'bad-dmp-layer';
  const length = C.DATA_HEADER_LENGTH + count - 1;
  if (length !== bytes.length) return 'wrong-length';
  if (layerLength(bytes, 38) !== length - 38 || layerLength(bytes, 115) !== length - 115) return 'wrong-length';
  const universe = readU16(bytes, 113);
  if (universe < SACN_FIRST || universe > SACN_LAST) return 'bad-universe';
  if (bytes[108]! > C.HIGHEST_PRIORITY) return 'bad-priority';
  into.priority = bytes[108]!;
  into.syncAddress = readU16(bytes, 109);
  into.sequence = bytes[111]!;
  into.options = bytes[112]!;
  into.universe = universe;
  into.startCode = bytes[125]!;
  into.slotCount = count - 1;
  return undefined;
}

export const readSourceName = (bytes: Uint8Array): string => readText(bytes, 44, C.SOURCE_NAME_LENGTH);

/** The universe of a packet that says that it carries data, unread otherwise; undefined for all others. */
export const dataUniverse = (bytes: Uint8Array): number | undefined =>
  bytes.length >= C.DATA_HEADER_LENGTH && readU32(bytes, 18) === C.VECTOR_ROOT_E131_DATA
    ? readU16(bytes, 113)
    : undefined;

const fields = blankDataFields();

/** A packet whose root layer says that it carries data. */
export function dataIn(bytes: Uint8Array): Result<SacnData, SacnRejection> {
  const reason = readDataFields(bytes, fields);
  if (reason) return refuseSacn(reason);
  const { options, slotCount, priority, syncAddress, sequence, universe, startCode } = fields;
  return ok({
    kind: 'data',
    cid: bytes.slice(22, 22 + C.CID_LENGTH),
    sourceName: readSourceName(bytes),
    priority,
    syncAddress,
    sequence,
    preview: (options & C.OPTION_PREVIEW_DATA) !== 0,
    terminated: (options & C.OPTION_STREAM_TERMINATED) !== 0,
    forceSync: (options & C.OPTION_FORCE_SYNCHRONIZATION) !== 0,
    universe,
    startCode,
    slots: bytes.slice(C.DATA_HEADER_LENGTH, C.DATA_HEADER_LENGTH + slotCount),
  });
}

/** Bytes of a data packet: 126 + slots. */
export function encodeData(message: Omit<SacnData, 'kind'>): Uint8Array {
  const slots = message.slots.subarray(0, SLOTS);
  const bytes = new Uint8Array(C.DATA_HEADER_LENGTH + slots.length);
  writeRoot(bytes, C.VECTOR_ROOT_E131_DATA, message.cid);
  writeFlagsAndLength(bytes, 38);
  writeU32(bytes, 40, C.VECTOR_E131_DATA_PACKET);
  writeText(bytes, 44, C.SOURCE_NAME_LENGTH, message.sourceName);
  bytes[108] = message.priority;
  writeU16(bytes, 109, message.syncAddress);
  bytes[111] = message.sequence;
  bytes[112] =
    (message.preview ? C.OPTION_PREVIEW_DATA : 0) |
    (message.terminated ? C.OPTION_STREAM_TERMINATED : 0) |
    (message.forceSync ? C.OPTION_FORCE_SYNCHRONIZATION : 0);
  writeU16(bytes, 113, message.universe);
  writeFlagsAndLength(bytes, 115);
  bytes[117] = C.VECTOR_DMP_SET_PROPERTY;
  bytes[118] = C.DMP_ADDRESS_AND_DATA_TYPE;
  writeU16(bytes, 119, 0);
  writeU16(bytes, 121, 1);
  writeU16(bytes, 123, slots.length + 1);
  bytes[125] = message.startCode;
  bytes.set(slots, C.DATA_HEADER_LENGTH);
  return bytes;
}
