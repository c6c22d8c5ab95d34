/** sACN, ANSI E1.31-2018: packets to messages and back. */
import { readU32 } from '../../base/bytes';
import { type Result } from '../../base/result';
import * as C from './constants';
import { dataIn, type SacnData } from './data';
import { discoveryIn, type SacnDiscovery } from './discovery';
import { refuseSacn, readRoot, type SacnRejection } from './root';
import { syncIn, type SacnSync } from './sync';

/** Where the framing layer says what it is (6.2.2) */
const FRAMING_VECTOR = 40;
const FRAMING_VECTOR_END = FRAMING_VECTOR + 4;

export type SacnMessage = SacnData | SacnSync | SacnDiscovery;

/** Any bytes at all: one sACN message, or the name of the rule they break. Never throws. */
export function decodeSacn(bytes: Uint8Array): Result<SacnMessage, SacnRejection> {
  const vector = readRoot(bytes);
  if (typeof vector === 'string') return refuseSacn(vector);
  if (vector === C.VECTOR_ROOT_E131_DATA) return dataIn(bytes);
  if (vector !== C.VECTOR_ROOT_E131_EXTENDED) return refuseSacn('unknown-root-vector');
  if (bytes.length < FRAMING_VECTOR_END) return refuseSacn('too-short');
  switch (readU32(bytes, FRAMING_VECTOR)) {
    case C.VECTOR_E131_EXTENDED_SYNCHRONIZATION:
      return syncIn(bytes);
    case C.VECTOR_E131_EXTENDED_DISCOVERY:
      return discoveryIn(bytes);
    default:
      return refuseSacn('unknown-framing-vector');
  }
}
