/** What if, over HTTP. */
import {
  flag,
  integer,
  listOf,
  oneOf,
  orNull,
  plain,
  plainOf,
  report,
  shape,
  text,
  whole,
  words,
  yesNo,
  type ReportOf,
} from '../../base/field';
import {
  WHAT_IF_FROM,
  failureRow,
  whatIfEvents,
  whatIfReport,
  type FailureRow,
  type WhatIfEvent,
  type WhatIfFrom,
  type WhatIfReport,
} from '../../truth/whatif';
import { at } from './endpoint';

const from = oneOf('From', WHAT_IF_FROM, { about: 'As planned, as it is now, or as it was last kept as good.' });

export interface WhatIfRequest {
  readonly from: WhatIfFrom;
  readonly events: readonly WhatIfEvent[];
  readonly seconds: number;
}

const everyReply = report('EveryFailure', {
  id: words(),
  done: integer(),
  of: integer('0 until that is known.'),
  ended: yesNo(),
  why: words('Why it came to no end; empty if it did.'),
  rows: listOf<FailureRow>(failureRow, 'The worst first; empty until the end.'),
});
export interface EveryReply extends ReportOf<typeof everyReply.fields> {}

const mends = report('Mends', {
  mends: listOf(
    report('', {
      says: words(),
      sentence: words('Of the edit; empty where the plan cannot do it.'),
      lines: listOf(report('', { subject: words(), before: words(), after: words() })),
      changes: orNull(plain<readonly object[]>({ type: 'array', items: { type: 'object' } })),
    }),
  ),
});
export interface MendsReply extends ReportOf<typeof mends.fields> {}

export const WHAT_IF_ENDPOINTS = {
  whatIf: at('whatIf', {
    says: 'Play failures on a time line; nothing is sent.',
    body: plainOf<WhatIfRequest>(
      shape('Request', { from, events: whatIfEvents, seconds: whole('Seconds', 1, 600, { unit: 's' }) }),
    ),
    reply: plain<WhatIfReport>(whatIfReport.schema),
    problems: ['not-understood', 'not-possible', 'not-ready'],
  }),
  everyFailure: at('everyFailure', {
    says: 'Try every single failure, and if wished every two together; it runs by itself.',
    body: shape('Request', { from, pairs: flag('Pairs', { what: 'Whether pairs are tried' }) }),
    reply: everyReply,
    status: 202,
    problems: ['not-understood', 'busy', 'not-possible', 'not-ready'],
  }),
  readEvery: at('readEvery', {
    says: 'How far it is, and what it came to.',
    params: { id: words() },
    reply: everyReply,
    problems: ['not-here'],
  }),
  cancelEvery: at('cancelEvery', {
    says: 'End it before its end.',
    params: { id: words() },
    status: 204,
    problems: ['not-here'],
  }),
  mendFailure: at('mendFailure', {
    says: 'What would take a single failure away, each with its edit where the plan can do it.',
    body: shape('Request', { from, key: text('Failure', 200) }),
    reply: mends,
    problems: ['not-understood', 'not-here', 'not-possible', 'not-ready'],
  }),
} as const;
