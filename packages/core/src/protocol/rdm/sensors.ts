/** Sensors of a responder: what each measures, in what unit and range, and what it says now (ANSI E1.20-2010, 10.7). */
import { readU16, writeU16 } from '../../base/bytes';
import { ok, refuse, type Result } from '../../base/result';
import { decodeLabel, encodeLabel } from './device';

const signed = (word: number): number => (word << 16) >> 16;

/** Names of units (table A-13); those that lamps have. */
export const UNITS: Readonly<Record<number, string>> = {
  0x01: '°C',
  0x02: 'V',
  0x03: 'V',
  0x04: 'V',
  0x05: 'A',
  0x06: 'A',
  0x07: 'A',
  0x08: 'Hz',
  0x09: 'Ω',
  0x0a: 'W',
  0x0b: 'kg',
  0x0c: 'm',
  0x10: 'm/s',
  0x14: 'Pa',
  0x15: 's',
  0x16: '°',
  0x18: 'cd',
  0x19: 'lm',
  0x1a: 'lx',
};
/** Powers of ten (table A-14) */
export const PREFIXES: Readonly<Record<number, number>> = {
  0x00: 0,
  0x01: -1,
  0x02: -2,
  0x03: -3,
  0x04: -6,
  0x05: -9,
  0x11: 1,
  0x12: 2,
  0x13: 3,
  0x14: 6,
  0x15: 9,
};

export interface SensorDefinition {
  /** From 0 */
  readonly sensor: number;
  readonly type: number;
  readonly unit: number;
  readonly prefix: number;
  readonly range: readonly [least: number, most: number];
  readonly normal: readonly [least: number, most: number];
  /** Bit 0: it keeps the value of a moment; bit 1: its lowest and highest */
  readonly keeps: number;
  readonly name: string;
}
const DEFINITION = 13;

export function decodeSensorDefinition(data: Uint8Array): Result<SensorDefinition, 'bad-length'> {
  if (data.length < DEFINITION) return refuse('bad-length', 'The description of a sensor is cut short.');
  const at = (i: number) => signed(readU16(data, i));
  return ok({
    sensor: data[0]!,
    type: data[1]!,
    unit: data[2]!,
    prefix: data[3]!,
    range: [at(4), at(6)],
    normal: [at(8), at(10)],
    keeps: data[12]!,
    name: decodeLabel(data.subarray(DEFINITION)),
  });
}

export function encodeSensorDefinition(one: SensorDefinition): Uint8Array {
  const name = encodeLabel(one.name);
  const data = new Uint8Array(DEFINITION + name.length);
  data.set([one.sensor, one.type, one.unit, one.prefix]);
  [...one.range, ...one.normal].forEach((word, i) => writeU16(data, 4 + i * 2, word));
  data[12] = one.keeps;
  data.set(name, DEFINITION);
  return data;
}

export interface SensorValue {
  readonly sensor: number;
  readonly now: number;
  readonly lowest: number;
  readonly highest: number;
  readonly kept: number;
}
const VALUE = 9;

export function decodeSensorValue(data: Uint8Array): Result<SensorValue, 'bad-length'> {
  if (data.length !== VALUE) return refuse('bad-length', `A sensor’s value has ${VALUE} bytes.`);
  const [now, lowest, highest, kept] = [1, 3, 5, 7].map((i) => signed(readU16(data, i))) as [
    number,
    number,
    number,
    number,
  ];
  return ok({ sensor: data[0]!, now, lowest, highest, kept });
}

export function encodeSensorValue({ sensor, now, lowest, highest, kept }: SensorValue): Uint8Array {
  const data = new Uint8Array(VALUE);
  data[0] = sensor;
  [now, lowest, highest, kept].forEach((word, i) => writeU16(data, 1 + i * 2, word));
  return data;
}

/** A value as a person reads it: `41 °C`, `0.35 A`; a unit that is not known is left out. */
export function sensorText(value: number, { unit, prefix }: Pick<SensorDefinition, 'unit' | 'prefix'>): string {
  return quantity(value, PREFIXES[prefix] ?? 0, UNITS[unit] ?? '');
}

/** A count of powers of ten of a unit: 35 of tenths of a second is `3.5 s`. */
export function quantity(value: number, power: number, unit: string): string {
  const number = power < 0 ? (value * 10 ** power).toFixed(-power) : String(value * 10 ** power);
  return `${number} ${unit}`.trim();
}
