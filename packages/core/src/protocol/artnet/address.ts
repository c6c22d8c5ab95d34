/** ArtAddress: names, Port-Addresses and commands for one page of a device (Art-Net 4, ArtAddress). */
import { readText, writeText } from '../../base/bytes';
import { ok, type Result } from '../../base/result';
import * as A from './constants';
import { refuseArtNet, newPacket, refuseHeader, type ArtNetRejection } from './header';

export interface ArtAddress {
  readonly kind: 'address';
  /** Bits 14–8 with bit 7 set to program them; 0x7f leaves them, 0 takes the switch on the box. */
  readonly netSwitch: number;
  /** 1 is the root device; 0 is read as 1. */
  readonly bindIndex: number;
  /** Empty leaves the name as it is; 17 and 63 bytes of UTF-8 at most. */
  readonly portName: string;
  readonly longName: string;
  /** Low four bits of each port's Port-Address, with bit 7 set to program it; always four. */
  readonly swIn: readonly number[];
  readonly swOut: readonly number[];
  /** Bits 7–4, as `netSwitch` */
  readonly subSwitch: number;
  /** sACN priority 0–200 of what the page's inputs send; 255 leaves it. */
  readonly acnPriority: number;
  readonly command: number;
}

export const ADDRESS_LENGTH = 107;

export function decodeAddress(bytes: Uint8Array): Result<ArtAddress, ArtNetRejection> {
  const reason = refuseHeader(bytes, A.OpAddress, ADDRESS_LENGTH);
  if (reason) return refuseArtNet(reason);
  return ok({
    kind: 'address',
    netSwitch: bytes[12]!,
    bindIndex: bytes[13]!,
    portName: readText(bytes, 14, 18),
    longName: readText(bytes, 32, 64),
    swIn: [...bytes.subarray(96, 100)],
    swOut: [...bytes.subarray(100, 104)],
    subSwitch: bytes[104]!,
    acnPriority: bytes[105]!,
    command: bytes[106]!,
  });
}

/** What is left out stays as it is at the device. */
export function encodeAddress(message: Partial<Omit<ArtAddress, 'kind'>>): Uint8Array {
  const bytes = newPacket(A.OpAddress, ADDRESS_LENGTH);
  bytes[12] = message.netSwitch ?? A.NO_CHANGE;
  bytes[13] = message.bindIndex ?? 1;
  writeText(bytes, 14, 18, message.portName ?? '');
  writeText(bytes, 32, 64, message.longName ?? '');
  for (let i = 0; i < 4; i += 1) {
    bytes[96 + i] = message.swIn?.[i] ?? A.NO_CHANGE;
    bytes[100 + i] = message.swOut?.[i] ?? A.NO_CHANGE;
  }
  bytes[104] = message.subSwitch ?? A.NO_CHANGE;
  bytes[105] = message.acnPriority ?? A.NO_PRIORITY_CHANGE;
  bytes[106] = message.command ?? A.AcNone;
  return bytes;
}
