/** ArtDmx: the levels of one universe (Art-Net 4, ArtDmx). */
import { SLOTS } from '../../base/address';
import { readU16, writeU16 } from '../../base/bytes';
import { ok, type Result } from '../../base/result';
import * as A from './constants';
import { refuseArtNet, newPacket, refuseHeader, type ArtNetRejection } from './header';

export interface ArtDmx {
  readonly kind: 'dmx';
  /** 1–255 in rising order; 0 if the sender does not count. */
  readonly sequence: number;
  /** The sender's input port; information only. */
  readonly physical: number;
  /** 0–32767 */
  readonly portAddress: number;
  /** 2–512 bytes, an even number */
  readonly slots: Uint8Array;
}

export const DMX_HEADER_LENGTH = 18;

/** The fields of an ArtDmx as the hot path reads them: written in place, no allocation. */
export interface ArtDmxFields {
  sequence: number;
  physical: number;
  portAddress: number;
  slotCount: number;
}

export const blankDmxFields = (): ArtDmxFields => ({ sequence: 0, physical: 0, portAddress: 0, slotCount: 0 });

/** Reads an ArtDmx into `into`; returns a rejection, or nothing. */
export function readDmxFields(bytes: Uint8Array, into: ArtDmxFields): ArtNetRejection | undefined {
  const reason = refuseHeader(bytes, A.OpDmx, DMX_HEADER_LENGTH);
  if (reason) return reason;
  const slotCount = readU16(bytes, 16);
  // The standard asks for an even length of at least 2; a receiver loses nothing by taking an odd one.
  if (slotCount < 1 || slotCount > SLOTS || DMX_HEADER_LENGTH + slotCount > bytes.length) return 'bad-length';
  into.sequence = bytes[12]!;
  into.physical = bytes[13]!;
  into.portAddress = ((bytes[15]! & 0x7f) << 8) | bytes[14]!;
  into.slotCount = slotCount;
  return undefined;
}

const fields = blankDmxFields();

export function decodeDmx(bytes: Uint8Array): Result<ArtDmx, ArtNetRejection> {
  const reason = readDmxFields(bytes, fields);
  if (reason) return refuseArtNet(reason);
  const { sequence, physical, portAddress, slotCount } = fields;
  return ok({
    kind: 'dmx',
    sequence,
    physical,
    portAddress,
    slots: bytes.slice(DMX_HEADER_LENGTH, DMX_HEADER_LENGTH + slotCount),
  });
}

/** Bytes of an ArtDmx; an odd number of slots is filled up with one zero. */
export function encodeDmx(message: Omit<ArtDmx, 'kind'>): Uint8Array {
  const slots = message.slots.subarray(0, SLOTS);
  const length = Math.max(2, slots.length + (slots.length % 2));
  const bytes = newPacket(A.OpDmx, DMX_HEADER_LENGTH + length);
  bytes[12] = message.sequence;
  bytes[13] = message.physical;
  bytes[14] = message.portAddress & 0xff;
  bytes[15] = (message.portAddress >> 8) & 0x7f;
  writeU16(bytes, 16, length);
  bytes.set(slots, DMX_HEADER_LENGTH);
  return bytes;
}
