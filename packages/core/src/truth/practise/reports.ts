/** What is told of a practice, while it runs and at its end. */
import { integer, listOf, orNull, plain, report, word, words, type ReportOf } from '../../base/field';
import type { Subject } from '../../show/records';
import { HARDNESS } from './night';

const HOW_FOUND = ['named', 'mended', 'not found'] as const;

const told = report('', {
  says: words(),
  how: word(HOW_FOUND),
  after: integer('Seconds from the beginning.'),
});

export const practiceNow = report('PracticeNow', {
  number: integer('Of the night; the same number brings the same night.'),
  hard: word(HARDNESS),
  by: words(),
  began: integer('Milliseconds since 1970.'),
  count: integer('How many things are wrong.'),
  found: listOf(told),
  hints: listOf(words(), 'Given until now.'),
  wrong: integer('Names that were not right.'),
});
export interface PracticeNow extends ReportOf<typeof practiceNow.fields> {}

export const foundFault = report('PracticeFault', {
  says: words(),
  how: word(HOW_FOUND),
  after: orNull(integer('Seconds from the beginning; null if it was not found.')),
  hints: integer(),
  about: plain<Subject>({ type: 'object' }),
  screens: listOf(words(), 'Looked at before it was found, the last one last.'),
});
export interface FoundFault extends ReportOf<typeof foundFault.fields> {}

export const mark = report('PracticeMark', {
  by: words(),
  at: words('ISO 8601, UTC.'),
  number: integer(),
  hard: word(HARDNESS),
  count: integer(),
  found: integer(),
  seconds: integer('Until the last was found, or until it was ended.'),
  hints: integer(),
  wrong: integer(),
  points: integer('0–100.'),
});
export interface Mark extends ReportOf<typeof mark.fields> {}

export const practiceEnd = report('PracticeEnd', {
  mark: plain<Mark>(mark.schema),
  faults: listOf<FoundFault>(foundFault),
});
export interface PracticeEnd extends ReportOf<typeof practiceEnd.fields> {}
