/** Reading and writing of numbers and fixed-width text in packets. */

const encoder = new TextEncoder();
const decoder = new TextDecoder('utf-8');

/** A big-endian 16-bit word; `at` must lie within the bytes. */
export const readU16 = (bytes: Uint8Array, at: number): number => (bytes[at]! << 8) | bytes[at + 1]!;

/** A big-endian 32-bit word, unsigned. */
export const readU32 = (bytes: Uint8Array, at: number): number =>
  ((bytes[at]! << 24) | (bytes[at + 1]! << 16) | (bytes[at + 2]! << 8) | bytes[at + 3]!) >>> 0;

export function writeU16(bytes: Uint8Array, at: number, value: number): void {
  bytes[at] = (value >> 8) & 0xff;
  bytes[at + 1] = value & 0xff;
}

export function writeU32(bytes: Uint8Array, at: number, value: number): void {
  writeU16(bytes, at, value >>> 16);
  writeU16(bytes, at + 2, value & 0xffff);
}

/** Reads UTF-8 text from a field of `width` bytes, up to the first NUL. */
export function readText(bytes: Uint8Array, at: number, width: number): string {
  let end = at;
  while (end < at + width && bytes[end] !== 0) end += 1;
  return decoder.decode(bytes.subarray(at, end));
}

/**
 * Writes UTF-8 text into a field of `width` bytes, always leaving a NUL at its end and never
 * cutting a character in two; the rest of the field is zeroed.
 */
export function writeText(bytes: Uint8Array, at: number, width: number, text: string): void {
  bytes.fill(0, at, at + width);
  let room = at;
  for (const character of text) {
    const code = character.codePointAt(0)!;
    if (code > 0 && code < 0x80) {
      if (room + 1 > at + width - 1) break;
      bytes[room] = code;
      room += 1;
      continue;
    }
    const piece = encoder.encode(character);
    if (room + piece.length > at + width - 1 || piece[0] === 0) break;
    bytes.set(piece, room);
    room += piece.length;
  }
}

/** True if the bytes at `at` are those of `expected`. */
export function startsWith(bytes: Uint8Array, expected: Uint8Array, at = 0): boolean {
  if (bytes.length < at + expected.length) return false;
  for (let i = 0; i < expected.length; i += 1) if (bytes[at + i] !== expected[i]) return false;
  return true;
}

/** Parts one after the other, as one. */
export function joinBytes(parts: readonly Uint8Array[]): Uint8Array {
  const whole = new Uint8Array(parts.reduce((sum, { length }) => sum + length, 0));
  let at = 0;
  for (const part of parts) {
    whole.set(part, at);
    at += part.length;
  }
  return whole;
}

/** Text from the wire as it may be shown: on one line, without anything that steers a screen, and not endless. */
export const printable = (text: string, longest = 256): string =>
  [...text.replace(/[\p{Cc}\p{Cf}\p{Co}\p{Cs}\s]+/gu, ' ').trim()].slice(0, longest).join('');
