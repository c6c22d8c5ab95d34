/** sACN, ANSI E1.31-2018: packets to messages and back. */
import { readU32 } from '../../base/bytes';
import { type Result } from '../../base/result';
import * as C from './constants';
import { decodeData, type SacnData } from './data';
import { decodeDiscovery, type SacnDiscovery } from './discovery';
import { refuseSacn, readRoot, type SacnRejection } from './root';
import { decodeSync, type SacnSync } from './sync';

export type SacnMessage = SacnData | SacnSync | SacnDiscovery;

/** Any bytes at all: one sACN message, or the name of the rule they break. Never throws. */
export function decodeSacn(bytes: Uint8Array): Result<SacnMessage, SacnRejection> {
  const vector = readRoot(bytes);
  if (typeof vector === 'string') return refuseSacn(vector);
  if (vector === C.VECTOR_ROOT_E131_DATA) return decodeData(bytes);
  if (vector !== C.VECTOR_ROOT_E131_EXTENDED) return refuseSacn('unknown-root-vector');
  if (bytes.length < 44) return refuseSacn('too-short');
  return readU32(bytes, 40) === C.VECTOR_E131_EXTENDED_SYNCHRONIZATION ? decodeSync(bytes) : decodeDiscovery(bytes);
}
