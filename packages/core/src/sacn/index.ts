/** sACN, ANSI E1.31-2018: packets to messages and back. */
import { readU32, rejected, type Decoded } from '../bytes';
import * as C from './constants';
import { decodeData, type SacnData } from './data';
import { decodeDiscovery, type SacnDiscovery } from './discovery';
import { readRoot, type SacnRejection } from './root';
import { decodeSync, type SacnSync } from './sync';

export * as Sacn from './constants';
export * from './data';
export * from './sync';
export * from './discovery';
export { formatCid, parseCid, readRoot, type SacnRejection } from './root';

export type SacnMessage = SacnData | SacnSync | SacnDiscovery;

/** Any bytes at all: one sACN message, or the name of the rule they break. Never throws. */
export function decodeSacn(bytes: Uint8Array): Decoded<SacnMessage, SacnRejection> {
  const vector = readRoot(bytes);
  if (typeof vector === 'string') return rejected(vector);
  if (vector === C.VECTOR_ROOT_E131_DATA) return decodeData(bytes);
  if (vector !== C.VECTOR_ROOT_E131_EXTENDED) return rejected('unknown-root-vector');
  if (bytes.length < 44) return rejected('too-short');
  return readU32(bytes, 40) === C.VECTOR_E131_EXTENDED_SYNCHRONIZATION ? decodeSync(bytes) : decodeDiscovery(bytes);
}
