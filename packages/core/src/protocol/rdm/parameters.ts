/** Which parameters a responder has beside the required ones, and what its own are (ANSI E1.20-2010, 10.4). */
import { readU16, readU32, writeU16, writeU32 } from '../../base/bytes';
import { ok, refuse, type Result } from '../../base/result';
import { decodeLabel, encodeLabel } from './device';

export function decodeSupported(data: Uint8Array): Result<number[], 'bad-length'> {
  if (data.length % 2 !== 0) return refuse('bad-length', 'The list of parameters is cut short.');
  return ok(Array.from({ length: data.length / 2 }, (_, i) => readU16(data, i * 2)));
}

export function encodeSupported(pids: readonly number[]): Uint8Array {
  const data = new Uint8Array(pids.length * 2);
  pids.forEach((pid, i) => writeU16(data, i * 2, pid));
  return data;
}

export interface ParameterDescription {
  readonly pid: number;
  /** Bytes of its value */
  readonly size: number;
  /** Kind of value (table A-15) and what may be done (table A-16): bit 0 get, bit 1 set */
  readonly type: number;
  readonly commands: number;
  readonly unit: number;
  readonly prefix: number;
  readonly least: number;
  readonly most: number;
  readonly first: number;
  readonly name: string;
}
const FIXED = 20;

export function decodeParameterDescription(data: Uint8Array): Result<ParameterDescription, 'bad-length'> {
  if (data.length < FIXED) return refuse('bad-length', 'The description of a parameter is cut short.');
  return ok({
    pid: readU16(data, 0),
    size: data[2]!,
    type: data[3]!,
    commands: data[4]!,
    unit: data[6]!,
    prefix: data[7]!,
    least: readU32(data, 8),
    most: readU32(data, 12),
    first: readU32(data, 16),
    name: decodeLabel(data.subarray(FIXED)),
  });
}

export function encodeParameterDescription(one: ParameterDescription): Uint8Array {
  const name = encodeLabel(one.name);
  const data = new Uint8Array(FIXED + name.length);
  writeU16(data, 0, one.pid);
  data.set([one.size, one.type, one.commands, 0, one.unit, one.prefix], 2);
  [one.least, one.most, one.first].forEach((value, i) => writeU32(data, 8 + i * 4, value));
  data.set(name, FIXED);
  return data;
}
