/** Settings that lamps share: what the standards' parameters are called, and how their values are read and set. */
import { readU16, readU32, writeU16, writeU32 } from '../../base/bytes';
import { ok, refuse, type Result } from '../../base/result';
import * as R from './constants';
import { decodeLabel, encodeLabel } from './device';
import type { ParameterDescription } from './parameters';
import { PREFIXES, quantity, UNITS } from './sensors';

/** What a value means where it is a choice */
export interface Choice {
  readonly value: number;
  readonly label: string;
}

/** One value of a parameter. */
export interface ParameterPart {
  /** Empty where the parameter has one only */
  readonly name: string;
  /** Bytes; 0 for text, which has `most` characters at most */
  readonly size: 0 | 1 | 2 | 4;
  /** Below 0 for a signed number */
  readonly least: number;
  readonly most: number;
  readonly unit: string;
  /** The number counts units times ten to this power */
  readonly power: number;
  readonly choices: readonly Choice[];
  /** Told only: it is not sent when the parameter is set */
  readonly told: boolean;
  /** Its greatest number is no time but for ever */
  readonly forever: boolean;
}

export interface ParameterSheet {
  readonly pid: number;
  readonly name: string;
  readonly get: boolean;
  readonly set: boolean;
  readonly parts: readonly ParameterPart[];
  /** Each number of its first part, from 1 to its second, has a name by this parameter, from byte `at` on */
  readonly named?: { readonly pid: number; readonly at: number };
  /** Something that it does, once: what it says afterwards proves nothing */
  readonly once?: true;
}

const PLAIN: ParameterPart = {
  ...{ name: '', size: 1, least: 0, most: 255, unit: '', power: 0, choices: [], told: false, forever: false },
};
const WORD = { size: 2, most: 0xffff } as const;

const sheet = (pid: number, name: string, ...parts: readonly Partial<ParameterPart>[]): ParameterSheet => ({
  ...{ pid, name, get: true, set: true },
  parts: parts.map((part) => ({ ...PLAIN, ...part })),
});
const readOnly = (one: ParameterSheet): ParameterSheet => ({ ...one, set: false });
const choose = (pid: number, name: string, labels: readonly (string | Choice)[]): ParameterSheet => {
  const choices = labels.map((label, value) => (typeof label === 'string' ? { value, label } : label));
  return sheet(pid, name, { most: Math.max(...choices.map(({ value }) => value)), choices });
};
const flag = (pid: number, name: string) => choose(pid, name, ['off', 'on']);
const count = (pid: number, name: string, unit: string) => sheet(pid, name, { size: 4, most: 0xffff_fffe, unit });
const text = (pid: number, name: string, most: number) => sheet(pid, name, { size: 0, most });
/** The number of one of those that it has, each with a name of its own */
const numbered = (pid: number, name: string, describedBy: number, at: number): ParameterSheet => ({
  ...sheet(pid, name, { least: 1 }, { name: 'of', told: true }),
  named: { pid: describedBy, at },
});

/** E1.37-1, 3.10 and 3.11; times in tenths of a second */
const scene = (pid: number, name: string, waits: string) =>
  sheet(
    pid,
    name,
    { ...WORD, name: 'scene (0 is none)' },
    { ...WORD, name: waits, unit: 's', power: -1, forever: true },
    { ...WORD, name: 'is held for', unit: 's', power: -1, forever: true },
    { name: 'level' },
  );

/** By parameter (ANSI E1.20-2010, 10.3–10.12; ANSI E1.37-1). */
const ALL: readonly ParameterSheet[] = [
  text(R.DEVICE_LABEL, 'Label', R.MOST_LABEL),
  text(R.LANGUAGE, 'Language, two letters', 2),
  readOnly(text(R.BOOT_SOFTWARE_VERSION_LABEL, 'Software that starts it', R.MOST_LABEL)),
  readOnly(sheet(R.BOOT_SOFTWARE_VERSION_ID, 'Number of the software that starts it', { size: 4, most: 0xffff_ffff })),
  readOnly(
    sheet(
      R.COMMS_STATUS,
      'Packets that came damaged',
      ...['cut short', 'of another length', 'with a wrong checksum'].map((name) => ({ ...WORD, name })),
    ),
  ),
  sheet(
    R.DMX_BLOCK_ADDRESS,
    'Address of the whole block',
    { ...WORD, name: 'slots', told: true },
    { ...WORD, name: 'begins at', least: 1, most: 512 },
  ),
  scene(R.DMX_FAIL_MODE, 'When DMX fails', 'begins after'),
  scene(R.DMX_STARTUP_MODE, 'Before DMX comes', 'begins after'),
  count(R.DEVICE_HOURS, 'Hours of the device', 'h'),
  count(R.LAMP_HOURS, 'Hours of its light source', 'h'),
  count(R.LAMP_STRIKES, 'Strikes', ''),
  count(R.DEVICE_POWER_CYCLES, 'Times switched on', ''),
  choose(R.LAMP_STATE, 'Light source', ['off', 'on', 'strikes', 'stands by']),
  choose(R.LAMP_ON_MODE, 'Light source comes on', [
    'by hand',
    'with DMX',
    'with power',
    'with power, when it has found its places',
  ]),
  sheet(R.BURN_IN, 'Burns in for', { unit: 'h' }),
  readOnly(
    sheet(
      R.DIMMER_INFO,
      'Dimmer',
      { ...WORD, name: 'least minimum' },
      { ...WORD, name: 'greatest minimum' },
      { ...WORD, name: 'least maximum' },
      { ...WORD, name: 'greatest maximum' },
      { name: 'curves' },
      { name: 'bits of its levels' },
      {
        name: 'minimum parted',
        choices: [
          { value: 0, label: 'no' },
          { value: 1, label: 'yes' },
        ],
      },
    ),
  ),
  sheet(
    R.MINIMUM_LEVEL,
    'Minimum',
    { ...WORD, name: 'rising' },
    { ...WORD, name: 'falling' },
    {
      name: 'on below it',
      most: 1,
      choices: [
        { value: 0, label: 'off' },
        { value: 1, label: 'on' },
      ],
    },
  ),
  sheet(R.MAXIMUM_LEVEL, 'Maximum', WORD),
  numbered(R.CURVE, 'Curve', R.CURVE_DESCRIPTION, 1),
  numbered(R.OUTPUT_RESPONSE_TIME, 'Response', R.OUTPUT_RESPONSE_TIME_DESCRIPTION, 1),
  numbered(R.MODULATION_FREQUENCY, 'Frequency of its light', R.MODULATION_FREQUENCY_DESCRIPTION, 5),
  // To be set it wants a code, which is not asked for here.
  readOnly(numbered(R.LOCK_STATE, 'Lock', R.LOCK_STATE_DESCRIPTION, 1)),
  choose(R.DISPLAY_INVERT, 'Display upside down', ['off', 'on', 'by itself']),
  sheet(R.DISPLAY_LEVEL, 'Display brightness', {}),
  flag(R.PAN_INVERT, 'Pan reversed'),
  flag(R.TILT_INVERT, 'Tilt reversed'),
  flag(R.PAN_TILT_SWAP, 'Pan and tilt swapped'),
  sheet(
    R.REAL_TIME_CLOCK,
    'Clock',
    { ...WORD, name: 'year', least: 2003 },
    { name: 'month', least: 1, most: 12 },
    { name: 'day', least: 1, most: 31 },
    { name: 'hour', most: 23 },
    { name: 'minute', most: 59 },
    { name: 'second', most: 60 },
  ),
  flag(R.IDENTIFY_DEVICE, 'Identify'),
  choose(R.IDENTIFY_MODE, 'Identifies', ['quietly', { value: 255, label: 'loudly' }]),
  choose(R.POWER_STATE, 'Power', ['off', 'shut down', 'stands by', { value: 255, label: 'on' }]),
  {
    ...choose(R.PERFORM_SELFTEST, 'Tests itself', ['no', { value: 255, label: 'everything' }]),
    once: true,
  },
  flag(R.POWER_ON_SELF_TEST, 'Tests itself when switched on'),
  sheet(R.PRESET_PLAYBACK, 'Plays back', { ...WORD, name: 'scene (0 is none)' }, { name: 'level' }),
  choose(R.PRESET_MERGEMODE, 'Scene and DMX', [
    'as it is made',
    'the highest',
    'the latest',
    'DMX only',
    { value: 255, label: 'otherwise' },
  ]),
  {
    ...choose(R.RESET_DEVICE, 'Begins anew', [
      { value: 1, label: 'warm' },
      { value: 255, label: 'cold' },
    ]),
    get: false,
    once: true,
  },
  // It is set without a value, and tells whether it is as it was made.
  sheet(R.FACTORY_DEFAULTS, 'As it was made', {
    most: 1,
    choices: [
      { value: 0, label: 'no' },
      { value: 1, label: 'yes' },
    ],
    told: true,
  }),
];
const SHEETS: ReadonlyMap<number, ParameterSheet> = new Map(ALL.map((one) => [one.pid, one]));

/** Shown with a lamp elsewhere, or there to name others. */
const ELSEWHERE: ReadonlySet<number> = new Set([
  ...[R.QUEUED_MESSAGE, R.STATUS_MESSAGES, R.SUPPORTED_PARAMETERS, R.PARAMETER_DESCRIPTION, R.DEVICE_INFO],
  ...[R.DEVICE_MODEL_DESCRIPTION, R.MANUFACTURER_LABEL, R.SOFTWARE_VERSION_LABEL],
  ...[R.DMX_PERSONALITY, R.DMX_PERSONALITY_DESCRIPTION, R.DMX_START_ADDRESS],
  ...[R.SLOT_INFO, R.SLOT_DESCRIPTION, R.DEFAULT_SLOT_VALUE, R.SENSOR_DEFINITION, R.SENSOR_VALUE],
  ...ALL.flatMap(({ named }) => (named ? [named.pid] : [])),
]);
/** Whether a parameter that is listed is one of its settings. */
export const isSetting = (pid: number): boolean => !ELSEWHERE.has(pid);

/** A parameter of the standards; undefined for all others. */
export const parameterSheet = (pid: number): ParameterSheet | undefined => SHEETS.get(pid);

const hex = (pid: number): string => `0x${pid.toString(16).padStart(4, '0')}`;
/** One that is listed, and of which no more than perhaps its name is known. */
export const unknownSheet = (pid: number, name = ''): ParameterSheet => ({
  ...{ pid, name: name || `Parameter ${hex(pid)}`, get: false, set: false, parts: [PLAIN] },
});

const ASCII = 2;
/** Kinds of numbers (table A-15): bytes, words and double words, unsigned and signed */
const KINDS: Readonly<Record<number, { readonly size: 1 | 2 | 4; readonly signed: boolean }>> = {
  3: { size: 1, signed: false },
  4: { size: 1, signed: true },
  5: { size: 2, signed: false },
  6: { size: 2, signed: true },
  7: { size: 4, signed: false },
  8: { size: 4, signed: true },
};
const SIZES = [1, 2, 4] as const;
/** Most values of one parameter that are told one by one */
const MOST_PARTS = 16;

/** A maker's own parameter as its description has it; undefined if its value is neither numbers nor text. */
export function sheetOfOwn(description: ParameterDescription): ParameterSheet | undefined {
  const { pid, name: said, commands, size: bytes, type, unit, prefix } = description;
  const name = said || `Parameter ${hex(pid)}`;
  const may = { get: (commands & 1) !== 0, set: (commands & 2) !== 0 };
  if (type === ASCII) return { ...text(pid, name, bytes), ...may };
  // One value of a kind that the table does not have is a plain number if it is as long as one.
  const plain = SIZES.find((one) => one === bytes);
  const kind = KINDS[type] ?? (plain && { size: plain, signed: false });
  const count = kind ? bytes / kind.size : 0;
  if (!kind || !Number.isInteger(count) || count < 1 || count > MOST_PARTS) return undefined;
  const whole = 2 ** (8 * kind.size);
  const [lowest, highest] = kind.signed ? [-whole / 2, whole / 2 - 1] : [0, whole - 1];
  // Told as 32 bits, with a sign where the kind has one; a range of nothing says none (10.4.2).
  const [least, most] = [description.least, description.most].map((one) => (kind.signed ? one | 0 : one)) as [
    number,
    number,
  ];
  const ranged = least < most && least >= lowest && most <= highest;
  const part = { size: kind.size, least: ranged ? least : lowest, most: ranged ? most : highest };
  const parts = Array.from({ length: count }, (_, i) => ({
    ...part,
    ...{ name: count > 1 ? String(i + 1) : '', unit: UNITS[unit] ?? '', power: PREFIXES[prefix] ?? 0 },
  }));
  return { ...sheet(pid, name, ...parts), ...may };
}

const readNumber = ({ size, least }: ParameterPart, data: Uint8Array, at: number): number => {
  const raw = size === 1 ? data[at]! : size === 2 ? readU16(data, at) : readU32(data, at);
  const sign = 2 ** (8 * size - 1);
  return least < 0 && raw >= sign ? raw - 2 * sign : raw;
};

/** What a responder answered: a number or a text for each part. */
export function readValues({ parts }: ParameterSheet, data: Uint8Array): Result<(number | string)[], 'bad-length'> {
  if (parts[0]?.size === 0) return ok([decodeLabel(data)]);
  const due = parts.reduce((sum, { size }) => sum + size, 0);
  if (data.length !== due) return refuse('bad-length', `It answers ${data.length} bytes where ${due} are due.`);
  let at = 0;
  return ok(
    parts.map((part) => {
      const value = readNumber(part, data, at);
      at += part.size;
      return value;
    }),
  );
}

const isChosen = ({ choices }: ParameterPart, value: number): boolean =>
  choices.length === 0 || choices.some((one) => one.value === value);

/**
 * Values to be sent, one for each part; those that are only told are left out. Refused in a sentence if out of range;
 * with `which` only that part is looked at, and the others go back as they came.
 */
export function writeValues(
  sheet: ParameterSheet,
  values: readonly (number | string)[],
  which?: number,
): Result<Uint8Array, 'out-of-range'> {
  const bytes: number[] = [];
  for (const [i, part] of sheet.parts.entries()) {
    if (part.told) continue;
    const value = values[i]!;
    const fits = which === undefined || which === i ? checkValue(sheet, i, value) : ok(null);
    if (!fits.ok) return fits;
    const data = new Uint8Array(part.size);
    if (part.size === 0) bytes.push(...encodeLabel(String(value)));
    else if (part.size === 1) data[0] = Number(value);
    else if (part.size === 2) writeU16(data, 0, Number(value) & 0xffff);
    else writeU32(data, 0, Number(value) >>> 0);
    bytes.push(...data);
  }
  return ok(Uint8Array.from(bytes));
}

/** It is set without a value. */
const isAct = ({ parts }: ParameterSheet): boolean => parts.every(({ told }) => told);

export const canBeSet = (sheet: ParameterSheet, which: number): boolean => {
  const part = sheet.parts[which];
  return sheet.set && part !== undefined && (!part.told || isAct(sheet));
};

/** Whether a part can be set to a value; a sentence if not. */
export function checkValue(sheet: ParameterSheet, which: number, value: number | string): Result<null, 'out-of-range'> {
  const { name, parts } = sheet;
  if (!canBeSet(sheet, which)) return refuse('out-of-range', `${name} cannot be set.`);
  const part = parts[which]!;
  const called = part.name === '' ? name : `${name}, ${part.name},`;
  if (isAct(sheet))
    return value === part.most
      ? ok(null)
      : refuse('out-of-range', `${called} can be set to ${valueText(part, part.most)} only.`);
  if (part.size === 0)
    return String(value).length > part.most
      ? refuse('out-of-range', `${called} has at most ${part.most} characters.`)
      : ok(null);
  const { least, most } = part;
  const fits = typeof value === 'number' && Number.isInteger(value) && value >= least && value <= most;
  return fits && isChosen(part, value) ? ok(null) : refuse('out-of-range', `${called} ${rangeText(part)}.`);
}

function rangeText({ least, most, choices }: ParameterPart): string {
  const apart = choices.length > 0 && choices.length < most - least + 1;
  return apart ? `is one of ${choices.map(({ value }) => value).join(', ')}` : `runs from ${least} to ${most}`;
}

/** A value in words: `on`, `1204 h`, `2.5 s`. */
export function valueText({ choices, unit, power, most, forever }: ParameterPart, value: number | string): string {
  if (typeof value === 'string') return value;
  const chosen = choices.find((one) => one.value === value);
  if (chosen) return chosen.label;
  if (forever && value === most) return 'for ever';
  return quantity(value, power, unit);
}

/** What a number of it counts: `s`, `0.1 s` */
export const countedIn = ({ unit, power }: ParameterPart): string =>
  power === 0 ? unit : `× ${10 ** power} ${unit}`.trim();
