/** What a responder has to say of itself: messages that wait, and what is wrong (ANSI E1.20-2010, 10.3). */
import { readU16, readU32, writeU16, writeU32 } from '../../base/bytes';
import { ok, refuse, type Result } from '../../base/result';
import * as R from './constants';

export interface StatusMessage {
  readonly subDevice: number;
  /** STATUS_ADVISORY, STATUS_WARNING or STATUS_ERROR; those with bit 4 say that it is over */
  readonly severity: number;
  /** Of table B-2; from 0x8000 on the maker's own */
  readonly id: number;
  /** Two signed words that belong to it */
  readonly values: readonly [number, number];
}
const BYTES = 9;
const CLEARED = 0x10;

const signed = (word: number): number => (word << 16) >> 16;

export function decodeStatus(data: Uint8Array): Result<StatusMessage[], 'bad-length'> {
  if (data.length % BYTES !== 0) return refuse('bad-length', 'The status messages are cut short.');
  return ok(
    Array.from({ length: data.length / BYTES }, (_, i) => {
      const at = i * BYTES;
      return {
        subDevice: readU16(data, at),
        severity: data[at + 2]!,
        id: readU16(data, at + 3),
        values: [signed(readU16(data, at + 5)), signed(readU16(data, at + 7))],
      };
    }),
  );
}

export function encodeStatus(messages: readonly StatusMessage[]): Uint8Array {
  const data = new Uint8Array(messages.length * BYTES);
  messages.forEach(({ subDevice, severity, id, values }, i) => {
    const at = i * BYTES;
    writeU16(data, at, subDevice);
    data[at + 2] = severity;
    writeU16(data, at + 3, id);
    values.forEach((value, which) => writeU16(data, at + 5 + which * 2, value & 0xffff));
  });
  return data;
}

/** Words of table B-2 for what lamps say; `%1` and `%2` stand for its values. */
const WORDS: Readonly<Record<number, string>> = {
  0x0001: 'calibration failed, slot %1',
  0x0002: 'sensor %1 is not found',
  0x0003: 'sensor %1 is always on',
  0x0011: 'the lamp was switched off',
  0x0012: 'the lamp was struck',
  0x0021: 'temperature of sensor %1 is too high: %2 °C',
  0x0022: 'temperature of sensor %1 is too low: %2 °C',
  0x0023: 'sensor %1 is out of its range',
  0x0031: 'phase %1 is too low: %2 V',
  0x0032: 'phase %1 is too high: %2 V',
  0x0033: 'current of phase %1: %2 A',
  0x0034: 'phase %1 is dead',
  0x0041: 'the mains are lost',
  0x0050: 'start code %1 is not read',
};

const KINDS: Readonly<Record<number, string>> = {
  [R.STATUS_ADVISORY]: 'note',
  [R.STATUS_WARNING]: 'warning',
  [R.STATUS_ERROR]: 'error',
};

/** A message as a person reads it: `error: temperature of sensor 0 is too high: 91 °C`. */
export function statusText({ severity, id, values }: StatusMessage): string {
  const words = (WORDS[id] ?? `message 0x${id.toString(16).padStart(4, '0')} (%1, %2)`)
    .replace('%1', String(values[0]))
    .replace('%2', String(values[1]));
  const over = (severity & CLEARED) !== 0 ? ', over now' : '';
  return `${KINDS[severity & ~CLEARED] ?? 'message'}: ${words}${over}`;
}

/** A count of 32 bits: hours, strikes, power cycles (10.8). */
export function decodeCount(data: Uint8Array): Result<number, 'bad-length'> {
  return data.length === 4 ? ok(readU32(data, 0)) : refuse('bad-length', 'The count is cut short.');
}

export function encodeCount(count: number): Uint8Array {
  const data = new Uint8Array(4);
  writeU32(data, 0, count);
  return data;
}
