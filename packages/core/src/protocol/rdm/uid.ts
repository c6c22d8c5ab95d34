/** Unique ids of responders: 16 bits of manufacturer, 32 of device (ANSI E1.20, 5). Written `7ff1:00000012`. */
import { readU16, readU32, writeU16, writeU32 } from '../../base/bytes';
import { ok, refuse, type Result } from '../../base/result';

export type Uid = string;

export const UID_LENGTH = 6;
const FORM = /^([0-9a-f]{4}):?([0-9a-f]{8})$/i;
const ALL_DEVICES = 0xffff_ffff;

export const formatUid = (manufacturer: number, device: number): Uid =>
  `${manufacturer.toString(16).padStart(4, '0')}:${device.toString(16).padStart(8, '0')}`;

/** Six bytes at `at`, which must lie within. */
export const readUid = (bytes: Uint8Array, at: number): Uid => formatUid(readU16(bytes, at), readU32(bytes, at + 2));

export function writeUid(bytes: Uint8Array, at: number, uid: Uid): void {
  const [manufacturer = '0', device = '0'] = uid.split(':');
  writeU16(bytes, at, parseInt(manufacturer, 16));
  writeU32(bytes, at + 2, parseInt(device, 16));
}

/** What a person typed, with or without its colon. */
export function parseUid(text: string): Result<Uid, 'not-a-uid'> {
  const [, manufacturer, device] = FORM.exec(text.trim()) ?? [];
  return manufacturer && device
    ? ok(`${manufacturer}:${device}`.toLowerCase())
    : refuse('not-a-uid', `“${text}” is no UID: four and eight hexadecimal digits, as in 7ff1:00000012.`);
}

/** Everybody, or everybody of one manufacturer: such requests are never answered (ANSI E1.20, 5.3). */
export const BROADCAST: Uid = formatUid(0xffff, ALL_DEVICES);
export const allOf = (manufacturer: number): Uid => formatUid(manufacturer, ALL_DEVICES);
export const isBroadcast = (uid: Uid): boolean => uid.endsWith(':ffffffff');
