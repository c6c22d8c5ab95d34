/** ArtIpProg and ArtIpProgReply: a device's own address, mask and gateway (Art-Net 4, ArtIpProg). */
import { readU16, writeU16 } from '../../base/bytes';
import { ok, type Result } from '../../base/result';
import * as A from './constants';
import { refuseArtNet, newPacket, readIp, refuseHeader, writeIp, type ArtNetRejection } from './header';

export interface ArtIpProg {
  readonly kind: 'ipProg';
  /** Bits of what to program; 0 asks only. */
  readonly command: number;
  /** Dotted */
  readonly ip: string;
  readonly mask: string;
  readonly gateway: string;
}

export interface ArtIpProgReply {
  readonly kind: 'ipProgReply';
  readonly ip: string;
  readonly mask: string;
  readonly gateway: string;
  readonly port: number;
  readonly dhcp: boolean;
}

export const IPPROG_LENGTH = 34;
const NOWHERE = '0.0.0.0';

export function decodeIpProg(bytes: Uint8Array): Result<ArtIpProg, ArtNetRejection> {
  const reason = refuseHeader(bytes, A.OpIpProg, IPPROG_LENGTH);
  if (reason) return refuseArtNet(reason);
  return ok({
    kind: 'ipProg',
    command: bytes[14]!,
    ip: readIp(bytes, 16),
    mask: readIp(bytes, 20),
    gateway: readIp(bytes, 26),
  });
}

/** Without a command it only asks. */
export function encodeIpProg(message: Partial<Omit<ArtIpProg, 'kind'>> = {}): Uint8Array {
  const bytes = newPacket(A.OpIpProg, IPPROG_LENGTH);
  bytes[14] = message.command ?? 0;
  writeIp(bytes, 16, message.ip ?? NOWHERE);
  writeIp(bytes, 20, message.mask ?? NOWHERE);
  writeIp(bytes, 26, message.gateway ?? NOWHERE);
  return bytes;
}

export function decodeIpProgReply(bytes: Uint8Array): Result<ArtIpProgReply, ArtNetRejection> {
  const reason = refuseHeader(bytes, A.OpIpProgReply, IPPROG_LENGTH);
  if (reason) return refuseArtNet(reason);
  return ok({
    kind: 'ipProgReply',
    ip: readIp(bytes, 16),
    mask: readIp(bytes, 20),
    port: readU16(bytes, 24),
    dhcp: (bytes[26]! & A.IPPROG_STATUS_DHCP) !== 0,
    gateway: readIp(bytes, 28),
  });
}

export function encodeIpProgReply(message: Omit<ArtIpProgReply, 'kind'>): Uint8Array {
  const bytes = newPacket(A.OpIpProgReply, IPPROG_LENGTH);
  writeIp(bytes, 16, message.ip);
  writeIp(bytes, 20, message.mask);
  writeU16(bytes, 24, message.port);
  bytes[26] = message.dhcp ? A.IPPROG_STATUS_DHCP : 0;
  writeIp(bytes, 28, message.gateway);
  return bytes;
}
