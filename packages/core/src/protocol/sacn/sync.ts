/** The E1.31 synchronisation packet (ANSI E1.31-2018, 6.3). */
import { SACN_FIRST, SACN_LAST } from '../../base/address';
import { readU16, writeU16, writeU32 } from '../../base/bytes';
import { ok, type Result } from '../../base/result';
import * as C from './constants';
import { refuseSacn, layerLength, writeFlagsAndLength, writeRoot, type SacnRejection } from './root';

export interface SacnSync {
  readonly kind: 'sync';
  readonly cid: Uint8Array;
  readonly sequence: number;
  /** 1–63999 */
  readonly syncAddress: number;
}

/** A packet whose framing layer says that it synchronises. */
export function syncIn(bytes: Uint8Array): Result<SacnSync, SacnRejection> {
  if (bytes.length < C.SYNC_LENGTH) return refuseSacn('too-short');
  if (bytes.length !== C.SYNC_LENGTH || layerLength(bytes, 38) !== C.SYNC_LENGTH - 38)
    return refuseSacn('wrong-length');
  const syncAddress = readU16(bytes, 45);
  if (syncAddress < SACN_FIRST || syncAddress > SACN_LAST) return refuseSacn('bad-universe');
  return ok({ kind: 'sync', cid: bytes.slice(22, 38), sequence: bytes[44]!, syncAddress });
}

export function encodeSync(message: Omit<SacnSync, 'kind'>): Uint8Array {
  const bytes = new Uint8Array(C.SYNC_LENGTH);
  writeRoot(bytes, C.VECTOR_ROOT_E131_EXTENDED, message.cid);
  writeFlagsAndLength(bytes, 38);
  writeU32(bytes, 40, C.VECTOR_E131_EXTENDED_SYNCHRONIZATION);
  bytes[44] = message.sequence;
  writeU16(bytes, 45, message.syncAddress);
  return bytes;
}
