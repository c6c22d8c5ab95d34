/** Lengths as people write them in tables: with units, commas, feet and inches. */
import { ok, refuse, type Result } from '../../../base/result';
import type { Comma, Open } from './questions';

export const UNITS = { m: 1, cm: 0.01, mm: 0.001, ft: 0.3048, in: 0.0254 } as const;
export type LengthUnit = keyof typeof UNITS;

const FARTHEST_M = 10_000;

/** `12' 6"`, `12'-6 1/2"`, `12ft 6in`, `6"`: in feet */
function feetOf(text: string): number | undefined {
  const [, sign = '', feet, inches, over, under] =
    /^([-−+]?)\s*(?:(\d+(?:\.\d+)?)\s*(?:'|’|′|ft\.?|feet))?\s*-?\s*(?:(\d+(?:\.\d+)?)(?:[ -](\d+)\/(\d+))?\s*(?:"|”|″|''|in\.?|inch(?:es)?))?$/i.exec(
      text,
    ) ?? [];
  if (feet === undefined && inches === undefined) return undefined;
  const part = over === undefined ? 0 : Number(over) / Number(under);
  const length = Number(feet ?? 0) + (Number(inches ?? 0) + part) / 12;
  return sign === '-' || sign === '−' ? -length : length;
}

/** A number with whichever comma; refused where that can be read in two ways. */
function numberOf(said: string, comma: Comma | undefined): number | Open {
  const text = said.replace('−', '-');
  const open = /^[-+]?\d{1,3},\d{3}$/.test(text);
  if (open && comma === undefined)
    return {
      ...refuse(
        'not-understood',
        `“${said}” can be ${text.replace(',', '.')} or ${text.replace(',', '')}. Say what the comma is.`,
      ),
      question: 'commas',
    };
  if (comma === 'thousands') return Number(text.replaceAll(',', ''));
  if (text.includes(',')) return Number(text.replaceAll('.', '').replace(',', '.'));
  return Number(text);
}

/** In metres, to the millimetre; `unit` is meant where the text names none. */
export function readLength(text: string, unit: LengthUnit, comma: Comma | undefined): Result<number> {
  const said = text.trim();
  const whole = (metres: number): Result<number> =>
    Number.isFinite(metres) && Math.abs(metres) <= FARTHEST_M
      ? ok(Math.round(metres * 1000) / 1000)
      : refuse('not-understood', `“${said}” is no length.`);
  const feet = feetOf(said);
  if (feet !== undefined) return whole(feet * UNITS.ft);
  const parts = /^([-−+]?[\d.,]+)\s*(mm|cm|m)?$/i.exec(said);
  if (!parts) return whole(NaN);
  const number = numberOf(parts[1]!, comma);
  if (typeof number !== 'number') return number;
  return whole(number * UNITS[(parts[2]?.toLowerCase() as LengthUnit | undefined) ?? unit]);
}
