/** Rows of an arrival: which are chosen before anybody chooses, and by what they are found. */
import type { ImportRowReply } from '@taxiarch/core/whole/contract';
import { matchesWords } from '@taxiarch/core/network/jump';

export const STATES = ['added', 'changed', 'gone', 'same'] as const;
export type RowState = (typeof STATES)[number];
export const STATE_WORDS: Readonly<Record<RowState, string>> = {
  added: 'new',
  changed: 'differ',
  gone: 'gone',
  same: 'same',
};

/**
 * What is gone stays in the show, and what was left out before is left out, unless a person says otherwise. A whole show
 * stands in place of the one that is there: what it lacks goes.
 */
export const chosenFirst = (rows: readonly ImportRowReply[]): ReadonlySet<string> =>
  new Set(
    rows
      .filter(({ kind, state, left }) => state === 'same' || left === true || (state === 'gone' && kind !== 'record'))
      .map(({ key }) => key),
  );

/** A change of a mode stands under the mode; in a list of kinds they are one. */
export const kindOfField = (field: string): string =>
  field.includes(': ') || field.startsWith('mode ') ? 'channels of a mode' : field;

export interface RowFilter {
  readonly state: RowState;
  /** Kind of change; empty for any */
  readonly field: string;
  readonly query: string;
}

export const shownRows = (rows: readonly ImportRowReply[], { state, field, query }: RowFilter): ImportRowReply[] =>
  rows.filter(
    (row) =>
      row.state === state &&
      (field === '' || row.fields.some((one) => kindOfField(one.field) === field)) &&
      (query.trim() === '' ||
        matchesWords(
          `${row.subject} ${row.fields.map(({ field: name, was, is }) => `${name} ${was} ${is}`).join(' ')}`,
          query,
        )),
  );

/** Kinds of change among rows, the most frequent first, with how many rows have each. */
export function fieldsIn(rows: readonly ImportRowReply[]): { field: string; count: number }[] {
  const counts = new Map<string, number>();
  for (const { fields } of rows)
    for (const field of new Set(fields.map((one) => kindOfField(one.field))))
      counts.set(field, (counts.get(field) ?? 0) + 1);
  return [...counts].map(([field, count]) => ({ field, count })).sort((a, b) => b.count - a.count);
}
