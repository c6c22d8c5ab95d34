/** What a table leaves open: values that can be read in two ways. They are asked, and not read until that is answered. */
import { refuse, type Refused } from '../../../base/result';
import type { DateOrder, SheetDate } from './sheet';

export const QUESTIONS = ['dates', 'decimals', 'commas'] as const;
export type Question = (typeof QUESTIONS)[number];

export const COMMAS = ['decimal', 'thousands'] as const;
export type Comma = (typeof COMMAS)[number];

/** What a person has answered so far; a question that is not here is open. */
export interface Answers {
  /** How dates in columns of addresses were typed */
  readonly dates?: DateOrder | undefined;
  /** Numbers such as 1.1 in columns of addresses mean what they show */
  readonly decimals?: 'as shown' | undefined;
  /** What the comma of 1,250 is */
  readonly commas?: Comma | undefined;
}

/** A value that cannot be read before `question` is answered. */
export interface Open extends Refused {
  readonly question: Question;
}

export const isOpen = (refused: Refused): refused is Open => 'question' in refused;

/** The address that was typed where the spreadsheet made a date of it. */
export function addressOfDate(shown: string, date: SheetDate, { dates }: Answers): string | Open {
  if (date.order === 'month, year') return `${date.month}/${date.year % 100}`;
  const order = date.order || dates;
  if (order === 'day first') return `${date.day}/${date.month}`;
  if (order === 'month first') return `${date.month}/${date.day}`;
  return {
    ...refuse(
      'not-understood',
      `The spreadsheet made a date of this address (“${shown}”). It was ${date.day}/${date.month} or ${date.month}/${date.day}: say how dates were typed.`,
    ),
    question: 'dates',
  };
}

const HIGHEST_CHANNEL = 512;

/** Refused where a number such as 1.1 may have been 1.10. */
export function openDecimals(shown: string, { decimals }: Answers): Open | undefined {
  const [, universe, channel] = /^(\d+)\.(\d{1,2})$/.exec(shown) ?? [];
  if (decimals || channel === undefined || Number(`${channel}0`) > HIGHEST_CHANNEL) return undefined;
  return {
    ...refuse(
      'not-understood',
      `“${shown}” is a number: it may have been ${universe}.${channel} or ${universe}.${channel}0. Say whether numbers mean what they show.`,
    ),
    question: 'decimals',
  };
}

/** What the cells of the length columns prove about their commas; undefined if nothing does. */
export function provenComma(cells: Iterable<string>): Comma | undefined {
  for (const cell of cells) {
    const said = cell.trim();
    if (/\d\.\d{3},\d/.test(said)) return 'decimal';
    if (/\d,\d{3}\.\d/.test(said) || /\d,\d{3},\d{3}/.test(said)) return 'thousands';
    if (/^\D*\d+,(\d{1,2}|\d{4,})\D*$/.test(said) || /^\D*(0|\d{4,}),\d/.test(said)) return 'decimal';
  }
  return undefined;
}
