/** RDM over Art-Net: tables of devices and requests to lamps (Art-Net 4, ArtTodRequest to ArtRdmSub). */
import { joinPortAddress, splitPortAddress } from '../../base/address';
import { readU16, writeU16 } from '../../base/bytes';
import { readUid, writeUid, UID_LENGTH, type Uid } from '../rdm';
import { ok, type Result } from '../../base/result';
import * as A from './constants';
import { newPacket, readOpCode, refuseArtNet, refuseHeader, type ArtNetRejection } from './header';

/** Asks nodes for the table of devices of some ports. */
export interface ArtTodRequest {
  readonly kind: 'todRequest';
  /** All of one net, at most 32 */
  readonly portAddresses: readonly number[];
}

/** A part of a port's table of devices; or that the node has none yet. */
export interface ArtTodData {
  readonly kind: 'todData';
  /** Of the page, 1–4 */
  readonly port: number;
  readonly bindIndex: number;
  readonly portAddress: number;
  /** False: discovery has not come to its end, or the node cannot tell (TodNak) */
  readonly full: boolean;
  /** UIDs of the whole table, and the number of this part, from 0 */
  readonly total: number;
  readonly block: number;
  /** At most 200 */
  readonly uids: readonly Uid[];
}

export interface ArtTodControl {
  readonly kind: 'todControl';
  /** AtcNone, AtcFlush, AtcEnd, AtcIncOn, AtcIncOff */
  readonly command: number;
  readonly portAddress: number;
}

export interface ArtRdm {
  readonly kind: 'rdm';
  readonly portAddress: number;
  /** What a node's queue has room for, and its size; 0 where it does not tell */
  readonly fifoAvailable: number;
  readonly fifoMost: number;
  /** The RDM packet from its sub start code on: its start code is left out */
  readonly packet: Uint8Array;
}

/** Values of many sub-devices in one packet */
export interface ArtRdmSub {
  readonly kind: 'rdmSub';
  readonly uid: Uid;
  readonly commandClass: number;
  readonly pid: number;
  /** The first one, from 0 for the root */
  readonly subDevice: number;
  readonly count: number;
  readonly values: readonly number[];
}

export type ArtRdmMessage = ArtTodRequest | ArtTodData | ArtTodControl | ArtRdm | ArtRdmSub;

const RDM_STANDARD = 1;
const MOST_ADDRESSES = 32;
const MOST_UIDS = 200;
const TOD_NAK = 0xff;
const AT = { net: 21, command: 22, address: 23 } as const;
const TOD_REQUEST = 56;
const TOD_DATA = 28;
const SHORT = 24;
const RDM_SUB = 32;

const addressAt = (bytes: Uint8Array, low: number): number =>
  joinPortAddress({ net: bytes[AT.net]! & 0x7f, sub: low >> 4, universe: low & 0xf });

function writeAddress(bytes: Uint8Array, portAddress: number): void {
  const { net, sub, universe } = splitPortAddress(portAddress);
  bytes[AT.net] = net;
  bytes[AT.address] = (sub << 4) | universe;
}

function todRequest(bytes: Uint8Array): Result<ArtTodRequest, ArtNetRejection> {
  const count = bytes[AT.address]!;
  if (count > MOST_ADDRESSES || bytes.length < SHORT + count) return refuseArtNet('bad-length');
  const portAddresses = [...bytes.subarray(SHORT, SHORT + count)].map((low) => addressAt(bytes, low));
  return ok({ kind: 'todRequest', portAddresses });
}

function todData(bytes: Uint8Array): Result<ArtTodData, ArtNetRejection> {
  const count = bytes[27]!;
  if (count > MOST_UIDS || bytes.length < TOD_DATA + count * UID_LENGTH) return refuseArtNet('bad-length');
  return ok({
    kind: 'todData',
    port: bytes[13]!,
    bindIndex: bytes[20]!,
    portAddress: addressAt(bytes, bytes[AT.address]!),
    full: bytes[AT.command] !== TOD_NAK,
    total: readU16(bytes, 24),
    block: bytes[26]!,
    uids: Array.from({ length: count }, (_, i) => readUid(bytes, TOD_DATA + i * UID_LENGTH)),
  });
}

function rdmSub(bytes: Uint8Array): Result<ArtRdmSub, ArtNetRejection> {
  const values = Math.floor((bytes.length - RDM_SUB) / 2);
  return ok({
    kind: 'rdmSub',
    uid: readUid(bytes, 14),
    commandClass: bytes[21]!,
    pid: readU16(bytes, 22),
    subDevice: readU16(bytes, 24),
    count: readU16(bytes, 26),
    values: Array.from({ length: values }, (_, i) => readU16(bytes, RDM_SUB + i * 2)),
  });
}

const SHORTEST: Readonly<Record<number, number>> = {
  [A.OpTodRequest]: SHORT,
  [A.OpTodData]: TOD_DATA,
  [A.OpTodControl]: SHORT,
  // The sub start code and the length at least.
  [A.OpRdm]: SHORT + 2,
  [A.OpRdmSub]: RDM_SUB,
};

/** Any bytes at all: a message about RDM, or the name of the rule that they break. Never throws. */
export function decodeArtRdm(bytes: Uint8Array): Result<ArtRdmMessage, ArtNetRejection> {
  const opCode = readOpCode(bytes);
  if (typeof opCode === 'string') return refuseArtNet(opCode);
  const shortest = SHORTEST[opCode];
  if (shortest === undefined) return refuseArtNet('unknown-opcode');
  const reason = refuseHeader(bytes, opCode, shortest);
  if (reason) return refuseArtNet(reason);
  switch (opCode) {
    case A.OpTodRequest:
      return todRequest(bytes);
    case A.OpTodData:
      return todData(bytes);
    case A.OpTodControl:
      return ok({
        kind: 'todControl',
        command: bytes[AT.command]!,
        portAddress: addressAt(bytes, bytes[AT.address]!),
      });
    case A.OpRdmSub:
      return rdmSub(bytes);
    default:
      return ok({
        kind: 'rdm',
        portAddress: addressAt(bytes, bytes[AT.address]!),
        fifoAvailable: bytes[19]!,
        fifoMost: bytes[20]!,
        packet: bytes.slice(SHORT),
      });
  }
}

/** Throws for more than 32 Port-Addresses, or ones of several nets: they need packets of their own. */
export function encodeTodRequest(portAddresses: readonly number[]): Uint8Array {
  const parts = portAddresses.map(splitPortAddress);
  if (parts.length > MOST_ADDRESSES || parts.some(({ net }) => net !== parts[0]!.net))
    throw new RangeError('A TodRequest asks for at most 32 Port-Addresses of one net.');
  const bytes = newPacket(A.OpTodRequest, TOD_REQUEST);
  bytes[AT.net] = parts[0]?.net ?? 0;
  bytes[AT.address] = parts.length;
  parts.forEach(({ sub, universe }, i) => (bytes[SHORT + i] = (sub << 4) | universe));
  return bytes;
}

/** A whole table of devices in as many packets as it takes; one without UIDs where there are none. */
export function encodeTod(
  uids: readonly Uid[],
  where: Pick<ArtTodData, 'port' | 'bindIndex' | 'portAddress' | 'full'>,
): Uint8Array[] {
  return Array.from({ length: Math.max(1, Math.ceil(uids.length / MOST_UIDS)) }, (_, block) => {
    const part = uids.slice(block * MOST_UIDS, (block + 1) * MOST_UIDS);
    const bytes = newPacket(A.OpTodData, TOD_DATA + part.length * UID_LENGTH);
    bytes[12] = RDM_STANDARD;
    bytes[13] = where.port;
    bytes[20] = where.bindIndex;
    writeAddress(bytes, where.portAddress);
    bytes[AT.command] = where.full ? 0 : TOD_NAK;
    writeU16(bytes, 24, uids.length);
    bytes[26] = block;
    bytes[27] = part.length;
    part.forEach((uid, i) => writeUid(bytes, TOD_DATA + i * UID_LENGTH, uid));
    return bytes;
  });
}

export function encodeTodControl({ command, portAddress }: Omit<ArtTodControl, 'kind'>): Uint8Array {
  const bytes = newPacket(A.OpTodControl, SHORT);
  writeAddress(bytes, portAddress);
  bytes[AT.command] = command;
  return bytes;
}

export function encodeArtRdm({ portAddress, fifoAvailable, fifoMost, packet }: Omit<ArtRdm, 'kind'>): Uint8Array {
  const bytes = newPacket(A.OpRdm, SHORT + packet.length);
  bytes[12] = RDM_STANDARD;
  bytes.set([fifoAvailable, fifoMost], 19);
  writeAddress(bytes, portAddress);
  bytes.set(packet, SHORT);
  return bytes;
}

export function encodeRdmSub({
  uid,
  commandClass,
  pid,
  subDevice,
  count,
  values,
}: Omit<ArtRdmSub, 'kind'>): Uint8Array {
  const bytes = newPacket(A.OpRdmSub, RDM_SUB + values.length * 2);
  bytes[12] = RDM_STANDARD;
  writeUid(bytes, 14, uid);
  bytes[21] = commandClass;
  [pid, subDevice, count].forEach((word, i) => writeU16(bytes, 22 + i * 2, word));
  values.forEach((value, i) => writeU16(bytes, RDM_SUB + i * 2, value));
  return bytes;
}
