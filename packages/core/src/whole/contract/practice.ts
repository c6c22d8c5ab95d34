/** Practising on the stand-ins, over HTTP. */
import {
  listOf,
  name,
  oneOf,
  optional,
  orNull,
  plain,
  plainOf,
  report,
  shape,
  text,
  whole,
  words,
  yesNo,
} from '../../base/field';
import type { ReportOf } from '../../base/field';
import {
  HARDNESS,
  LAST_NIGHT,
  MOST_FAULTS,
  mark,
  practiceEnd,
  practiceNow,
  type Hardness,
  type Mark,
  type PracticeEnd,
  type PracticeNow,
} from '../../truth/practise';
import { subject } from '../../show/records';
import { at } from './endpoint';

const cause = report('', { id: words(), title: words('What it is, wherever it is.') });

export const practiceReply = report('Practice', {
  cannot: words('Why nobody can practise here; empty if one can.'),
  running: orNull(plain<PracticeNow>(practiceNow.schema)),
  last: orNull(plain<PracticeEnd>(practiceEnd.schema, 'The one that ended last; null while one runs.')),
  marks: listOf<Mark>(mark, 'Of everybody, newest first.'),
  causes: listOf(cause, 'What may be wrong: the names to choose from.'),
});
export interface PracticeReply extends ReportOf<typeof practiceReply.fields> {}

const named = report('PracticeNamed', {
  right: yesNo(),
  practice: plain<PracticeReply>(practiceReply.schema),
});
export interface PracticeRequest {
  readonly author: string;
  readonly count: number;
  readonly hard: Hardness;
  readonly number?: number | undefined;
}

const MOST_SCREEN = 200;

export const PRACTICE_ENDPOINTS = {
  readPractice: at('readPractice', {
    says: 'The practice that runs, the last one, and all marks.',
    reply: practiceReply,
  }),
  beginPractice: at('beginPractice', {
    says: 'Plant a night’s faults in the stand-ins; the clock runs from now on.',
    body: plainOf<PracticeRequest>(
      shape('Request', {
        author: name('Author', { what: 'Say who practises: the author' }),
        count: whole('How many', 1, MOST_FAULTS),
        hard: oneOf('How hard', HARDNESS),
        number: optional(whole('Number of the night', 1, LAST_NIGHT)),
      }),
    ),
    reply: practiceReply,
    problems: ['not-understood', 'not-here', 'not-ready', 'not-possible', 'taken'],
  }),
  nameFault: at('nameFault', {
    says: 'Say what is wrong, and where.',
    body: shape('Request', { about: subject, cause: name('Cause') }),
    reply: named,
    problems: ['not-understood', 'nothing-to-do'],
  }),
  giveHint: at('giveHint', { says: 'Give a hint.', reply: practiceReply, problems: ['nothing-to-do'] }),
  lookedAt: at('lookedAt', {
    says: 'Say which screen is looked at.',
    body: shape('Request', { screen: text('Screen', MOST_SCREEN) }),
    status: 204,
    problems: ['not-understood'],
  }),
  endPractice: at('endPractice', {
    says: 'End the practice; the stand-ins are as they were shipped again.',
    reply: practiceReply,
    problems: ['nothing-to-do', 'not-ready'],
  }),
} as const;
