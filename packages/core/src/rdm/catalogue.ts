/** Settings that lamps share: what the standards' parameters are called, and how their values are read and set. */
import { readU16, readU32, writeU16, writeU32 } from '../bytes';
import { ok, refuse, type Result } from '../result';
import * as R from './constants';
import { decodeLabel, encodeLabel } from './device';
import type { ParameterDescription } from './parameters';

export interface ParameterSheet {
  readonly pid: number;
  readonly name: string;
  /** Bytes of its value; 0 for text */
  readonly size: 0 | 1 | 2 | 4;
  readonly get: boolean;
  readonly set: boolean;
  readonly least: number;
  readonly most: number;
  readonly unit: string;
  /** What each value means, from `least` on, where it is a choice */
  readonly choices?: readonly string[];
}

const flag = (pid: number, name: string): ParameterSheet => ({
  ...{ pid, name, size: 1, get: true, set: true, least: 0, most: 1, unit: '' },
  choices: ['off', 'on'],
});
const count = (pid: number, name: string, unit: string): ParameterSheet => ({
  ...{ pid, name, size: 4, get: true, set: true, least: 0, most: 0xffff_fffe, unit },
});

/** By parameter, those with one plain value (ANSI E1.20, 10.5–10.12; ANSI E1.37-1). */
const SHEETS: ReadonlyMap<number, ParameterSheet> = new Map(
  (
    [
      { pid: R.DEVICE_LABEL, name: 'Label', size: 0, get: true, set: true, least: 0, most: R.MOST_LABEL, unit: '' },
      count(R.DEVICE_HOURS, 'Hours of the device', 'h'),
      count(R.LAMP_HOURS, 'Hours of its light source', 'h'),
      count(R.LAMP_STRIKES, 'Strikes', ''),
      count(R.DEVICE_POWER_CYCLES, 'Times switched on', ''),
      {
        ...{ pid: R.LAMP_STATE, name: 'Light source', size: 1, get: true, set: true, least: 0, most: 3, unit: '' },
        choices: ['off', 'on', 'strikes', 'stands by'],
      },
      {
        ...{ pid: R.LAMP_ON_MODE, name: 'Light source comes on', size: 1, get: true, set: true, least: 0, most: 2 },
        unit: '',
        choices: ['by hand', 'with DMX', 'with power'],
      },
      flag(R.DISPLAY_INVERT, 'Display upside down'),
      {
        pid: R.DISPLAY_LEVEL,
        name: 'Display brightness',
        size: 1,
        get: true,
        set: true,
        least: 0,
        most: 255,
        unit: '',
      },
      flag(R.PAN_INVERT, 'Pan reversed'),
      flag(R.TILT_INVERT, 'Tilt reversed'),
      flag(R.PAN_TILT_SWAP, 'Pan and tilt swapped'),
      flag(R.IDENTIFY_DEVICE, 'Identify'),
      {
        ...{ pid: R.IDENTIFY_MODE, name: 'Identifies', size: 1, get: true, set: true, least: 0, most: 255, unit: '' },
      },
    ] satisfies ParameterSheet[]
  ).map((sheet) => [sheet.pid, sheet]),
);

/** A parameter of the standards with one plain value; undefined for all others. */
export const parameterSheet = (pid: number): ParameterSheet | undefined => SHEETS.get(pid);

const SIZES = [1, 2, 4] as const;
/** Units of table A-13 that settings have */
const UNITS: Readonly<Record<number, string>> = { 1: '°C', 2: 'V', 5: 'A', 8: 'Hz', 0x0a: 'W', 0x15: 's', 0x16: '°' };

/** A maker's own parameter as its description has it; undefined if its value is not one plain number. */
export function sheetOfOwn(description: ParameterDescription): ParameterSheet | undefined {
  const { pid, name, commands, least, most, unit } = description;
  const size = SIZES.find((one) => one === description.size);
  if (!size) return undefined;
  return {
    ...{ pid, name, size, least, most },
    get: (commands & 1) !== 0,
    set: (commands & 2) !== 0,
    unit: UNITS[unit] ?? '',
  };
}

/** What a responder answered, as a number or a text. */
export function readValue({ size }: ParameterSheet, data: Uint8Array): Result<number | string, 'bad-length'> {
  if (size === 0) return ok(decodeLabel(data));
  if (data.length !== size) return refuse('bad-length', `It answers ${data.length} bytes where ${size} are due.`);
  return ok(size === 1 ? data[0]! : size === 2 ? readU16(data, 0) : readU32(data, 0));
}

/** A value to be sent; refused in a sentence if it is out of range. */
export function writeValue(sheet: ParameterSheet, value: number | string): Result<Uint8Array, 'out-of-range'> {
  const { size, least, most, name } = sheet;
  if (size === 0) {
    if (String(value).length > most) return refuse('out-of-range', `${name} has at most ${most} characters.`);
    return ok(encodeLabel(String(value)));
  }
  const number = typeof value === 'number' ? value : Number.NaN;
  if (!Number.isInteger(number) || number < least || number > most)
    return refuse('out-of-range', `${name} runs from ${least} to ${most}.`);
  const data = new Uint8Array(size);
  if (size === 1) data[0] = number;
  else if (size === 2) writeU16(data, 0, number);
  else writeU32(data, 0, number);
  return ok(data);
}

/** A value in words: `on`, `1204 h`. */
export function valueText({ choices, least, unit }: ParameterSheet, value: number | string): string {
  const chosen = typeof value === 'number' ? choices?.[value - least] : undefined;
  return chosen ?? `${value} ${unit}`.trim();
}
