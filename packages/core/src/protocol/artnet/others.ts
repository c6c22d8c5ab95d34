/** Art-Net packets that carry no levels of ours, and what they say in words: time, diagnostics, triggers, commands, other start codes. */
import { readText, readU16 } from '../../base/bytes';
import { ok, type Result } from '../../base/result';
import * as A from './constants';
import { newPacket, refuseArtNet, refuseHeader, type ArtNetRejection } from './header';

const FORMATS = ['film, 24 a second', 'EBU, 25 a second', 'drop frame, 29.97 a second', 'SMPTE, 30 a second'];
const PRIORITIES: Readonly<Record<number, string>> = {
  0x10: 'low',
  0x40: 'medium',
  0x80: 'high',
  0xe0: 'critical',
  0xf0: 'volatile',
};
const TRIGGER_KEYS = ['character', 'macro', 'soft key', 'show'];

const two = (value: number): string => String(value).padStart(2, '0');

const KINDS = {
  /** Art-Net 4, ArtTimeCode: frames, seconds, minutes, hours, type from byte 14. */
  timecode: {
    opCode: A.OpTimeCode,
    shortest: 19,
    read: (bytes: Uint8Array) =>
      `${two(bytes[17]!)}:${two(bytes[16]!)}:${two(bytes[15]!)}:${two(bytes[14]!)}, ${FORMATS[bytes[18]!] ?? 'of a type that is not known'}`,
  },
  /** Art-Net 4, ArtDiagData: priority in byte 13, length from byte 16, text. */
  diagnostics: {
    opCode: A.OpDiagData,
    shortest: 18,
    read: (bytes: Uint8Array) =>
      `${PRIORITIES[bytes[13]!] ?? 'no priority that is known'}: ${readText(bytes, 18, Math.min(readU16(bytes, 16), 512, bytes.length - 18))}`,
  },
  /** Art-Net 4, ArtTrigger: maker from byte 14, key, sub-key. */
  trigger: {
    opCode: A.OpTrigger,
    shortest: 18,
    read: (bytes: Uint8Array) => {
      const maker = readU16(bytes, 14);
      const [key, sub] = [bytes[16]!, bytes[17]!];
      return maker === 0xffff ? `${TRIGGER_KEYS[key] ?? `key ${key}`} ${sub}` : `maker ${maker}: key ${key}, ${sub}`;
    },
  },
  /** Art-Net 4, ArtCommand: maker from byte 12, length from byte 14, text. */
  command: {
    opCode: A.OpCommand,
    shortest: 16,
    read: (bytes: Uint8Array) => readText(bytes, 16, Math.min(readU16(bytes, 14), 512, bytes.length - 16)),
  },
} as const;

export interface TimeCodeFrame {
  readonly hours: number;
  readonly minutes: number;
  readonly seconds: number;
  readonly frames: number;
  /** 0 film, 1 EBU, 2 drop frame, 3 SMPTE */
  readonly type: number;
}

const TIME_CODE_LENGTH = 19;

/** ArtTimeCode (Art-Net 4, ArtTimeCode). */
export function encodeTimeCode({ hours, minutes, seconds, frames, type }: TimeCodeFrame): Uint8Array {
  const bytes = newPacket(A.OpTimeCode, TIME_CODE_LENGTH);
  bytes.set([frames, seconds, minutes, hours, type], 14);
  return bytes;
}

export type OtherKind = keyof typeof KINDS;
export const OTHER_KINDS = Object.keys(KINDS) as OtherKind[];

const BY_OPCODE: ReadonlyMap<number, OtherKind> = new Map(OTHER_KINDS.map((kind) => [KINDS[kind].opCode, kind]));

export const otherKindOf = (opCode: number): OtherKind | undefined => BY_OPCODE.get(opCode);

/** What a packet of this kind says, as it is on the wire. */
export function readOther(kind: OtherKind, bytes: Uint8Array): Result<string, ArtNetRejection> {
  const { opCode, shortest, read } = KINDS[kind];
  // ArtCommand has its version where the others have it, and its maker right after.
  const reason = refuseHeader(bytes, opCode, shortest);
  return reason ? refuseArtNet(reason) : ok(read(bytes));
}

/** ArtNzs: slots after another start code than 0 (Art-Net 4, ArtNzs). */
export interface ArtNzs {
  readonly startCode: number;
  readonly portAddress: number;
  readonly slots: Uint8Array;
}

const NZS_HEADER_LENGTH = 18;

export function decodeNzs(bytes: Uint8Array): Result<ArtNzs, ArtNetRejection> {
  const reason = refuseHeader(bytes, A.OpNzs, NZS_HEADER_LENGTH);
  if (reason) return refuseArtNet(reason);
  const length = readU16(bytes, 16);
  if (length < 1 || length > 512 || NZS_HEADER_LENGTH + length > bytes.length) return refuseArtNet('bad-length');
  return ok({
    startCode: bytes[13]!,
    portAddress: ((bytes[15]! & 0x7f) << 8) | bytes[14]!,
    slots: bytes.subarray(NZS_HEADER_LENGTH, NZS_HEADER_LENGTH + length),
  });
}
