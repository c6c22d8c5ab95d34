/** Values and offsets as GDTF writes them (DIN SPEC 15800, DMXValue; and as files of version 1.0 do). */
import { SLOTS } from '../../../base/address';
import { ok, refuse, type Result } from '../../../base/result';
import type { XmlElement } from './xml';

/** Bytes of the widest channel there is. */
const MOST_BYTES = 4;

/**
 * `255/1`, `65535/2`, `255/1s`, or a plain `255`, as a value of a channel with `bytes` bytes; undefined if it is none,
 * as “None” is.
 */
export function readDmxValue(text: string, bytes: number): number | undefined {
  const match = /^(\d+)(?:\/([1-4])(s?))?$/.exec(text.trim());
  if (!match) return undefined;
  const given = match[2] === undefined ? bytes : Number(match[2]);
  const value = Math.min(Number(match[1]), 256 ** given - 1);
  if (given >= bytes) return Math.floor(value / 256 ** (given - bytes));
  if (match[3] === 's') return value * 256 ** (bytes - given);
  // Without the s the bytes are mirrored: 255/1 of sixteen bits is 65535.
  let mirrored = 0;
  for (let i = 0; i < bytes; i += 1)
    mirrored = mirrored * 256 + (Math.floor(value / 256 ** (given - 1 - (i % given))) % 256);
  return mirrored;
}

export const writeDmxValue = (value: number, bytes: number): string => `${value}/${bytes}`;

/** Names of the parts of an offset in files of version 1.0 */
const PARTS = ['Coarse', 'Fine', 'Ultra', 'Uber'] as const;

const isNothing = (text: string): boolean => ['', 'None', '-1'].includes(text);

/** The slots of a channel, coarse first; none for a virtual channel. */
export function readOffsets(channel: XmlElement, name: string): Result<number[]> {
  const text = channel.at('Offset').trim();
  const said = 'Offset' in channel.attributes ? text.split(',') : PARTS.map((part) => channel.at(part));
  const parts = said.map((one) => one.trim());
  if (parts.every(isNothing)) return ok([]);
  const written = parts.filter((one) => !isNothing(one));
  const offsets = written.map(Number);
  if (
    offsets.length > MOST_BYTES ||
    offsets.some((offset) => !Number.isInteger(offset) || offset < 1 || offset > SLOTS)
  )
    return refuse(
      'not-understood',
      `The channel ${name} has offsets that cannot be: “${written.join(',').slice(0, 40)}”.`,
    );
  return ok(offsets);
}

/** A triple of `x,y,Y` (CIE 1931) */
type Xyy = readonly [number, number, number];

const toLinear = (share: number): number => (share <= 0.04045 ? share / 12.92 : ((share + 0.055) / 1.055) ** 2.4);
const toSrgb = (linear: number): number => (linear <= 0.0031308 ? linear * 12.92 : 1.055 * linear ** (1 / 2.4) - 0.055);

/** Of white light (D65), for what has no colour of its own */
const WHITE: Xyy = [0.3127, 0.329, 0];

/** `#2e8b57` as `x,y,Y`; Y runs to 100 (IEC 61966-2-1). */
export function writeColour(hex: string): string {
  const [r, g, b] = [1, 3, 5].map((at) => toLinear(parseInt(hex.slice(at, at + 2), 16) / 255)) as [
    number,
    number,
    number,
  ];
  const x = 0.4124564 * r + 0.3575761 * g + 0.1804375 * b;
  const y = 0.2126729 * r + 0.7151522 * g + 0.072175 * b;
  const z = 0.0193339 * r + 0.119192 * g + 0.9503041 * b;
  const sum = x + y + z;
  const xyy: Xyy = sum === 0 ? WHITE : [x / sum, y / sum, y * 100];
  return xyy.map((part) => part.toFixed(6)).join(',');
}

/** `x,y,Y` as `#2e8b57`; undefined if it is no colour. */
export function readColour(text: string): string | undefined {
  const parts = text.split(',').map(Number);
  const [cx, cy, luminance] = parts;
  if (parts.length !== 3 || parts.some((part) => !Number.isFinite(part)) || cy === 0) return undefined;
  const y = luminance! / 100;
  const x = (y / cy!) * cx!;
  const z = (y / cy!) * (1 - cx! - cy!);
  const linear = [
    3.2404542 * x - 1.5371385 * y - 0.4985314 * z,
    -0.969266 * x + 1.8760108 * y + 0.041556 * z,
    0.0556434 * x - 0.2040259 * y + 1.0572252 * z,
  ];
  // What is brighter than white is brought down to it, in its own colour.
  const most = Math.max(1, ...linear);
  return `#${linear
    .map((part) => Math.round(Math.min(1, Math.max(0, toSrgb(Math.max(0, part) / most))) * 255))
    .map((part) => part.toString(16).padStart(2, '0'))
    .join('')}`;
}
