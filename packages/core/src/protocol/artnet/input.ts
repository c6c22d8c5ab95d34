/** ArtInput: switches the inputs of one page on and off (Art-Net 4, ArtInput). */
import { readU16, writeU16 } from '../../base/bytes';
import { ok, type Result } from '../../base/result';
import * as A from './constants';
import { refuseArtNet, newPacket, refuseHeader, type ArtNetRejection } from './header';

export interface ArtInput {
  readonly kind: 'input';
  readonly bindIndex: number;
  /** Inputs that the page has, 0–4 */
  readonly ports: number;
  /** One for each of four ports: true switches its input off. */
  readonly disabled: readonly boolean[];
}

export const INPUT_LENGTH = 20;
const DISABLE = 0x01;

export function decodeInput(bytes: Uint8Array): Result<ArtInput, ArtNetRejection> {
  const reason = refuseHeader(bytes, A.OpInput, INPUT_LENGTH);
  if (reason) return refuseArtNet(reason);
  const ports = readU16(bytes, 14);
  if (ports > 4) return refuseArtNet('bad-port-count');
  return ok({
    kind: 'input',
    bindIndex: bytes[13]!,
    ports,
    disabled: [...bytes.subarray(16, 20)].map((byte) => (byte & DISABLE) !== 0),
  });
}

export function encodeInput({ bindIndex, ports, disabled }: Omit<ArtInput, 'kind'>): Uint8Array {
  const bytes = newPacket(A.OpInput, INPUT_LENGTH);
  bytes[13] = bindIndex;
  writeU16(bytes, 14, ports);
  disabled.slice(0, 4).forEach((off, i) => (bytes[16 + i] = off ? DISABLE : 0));
  return bytes;
}
