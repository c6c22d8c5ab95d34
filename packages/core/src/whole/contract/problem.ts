/** Everything that can go wrong with a request, as RFC 9457 problem documents whose `type` stays the same. */
import { integer, listOf, orNone, orNull, plain, report, words, type ReportOf } from '../../base/field';

/** Status and title of each kind of problem; its name is in its type. */
export const PROBLEMS = {
  'not-understood': { status: 400, title: 'Not understood' },
  'not-paired': { status: 401, title: 'Not paired' },
  'other-origin': { status: 403, title: 'Refused' },
  'not-here': { status: 404, title: 'Not here' },
  'stale-edit': { status: 409, title: 'Changed in the meantime' },
  safe: { status: 409, title: 'Safe' },
  taken: { status: 409, title: 'Taken' },
  'nothing-to-do': { status: 409, title: 'Nothing to do' },
  'no-answer': { status: 409, title: 'No answer' },
  'too-large': { status: 413, title: 'Too large' },
  'not-possible': { status: 422, title: 'Not possible' },
  busy: { status: 429, title: 'Busy' },
  failed: { status: 500, title: 'Taxiarch failed' },
  'not-ready': { status: 503, title: 'Not ready' },
} as const satisfies Readonly<Record<string, { status: number; title: string }>>;

export type ProblemName = keyof typeof PROBLEMS;

export const problemType = (name: ProblemName): string => `urn:taxiarch:problem:${name}`;

/** Problems that any endpoint may answer with. */
export const ALWAYS: readonly ProblemName[] = ['other-origin', 'not-paired', 'failed'];

export const problem = report(
  'Problem',
  {
    type: words('Stays the same while sentences are improved: `urn:taxiarch:problem:stale-edit`.'),
    title: words(),
    status: integer(),
    detail: words('A sentence fit to be shown.'),
    faults: orNone(listOf(report('', { at: words(), why: words() }), 'For input that was refused: what, and why.')),
    conflicts: orNone(
      listOf(
        report('', {
          kind: words(),
          id: words(),
          now: plain<unknown>({}, 'The record as it is now; null if it is gone.'),
          by: orNull(report('', { seq: integer(), author: words(), at: words(), sentence: words() })),
        }),
        'For a stale edit: the records that changed since they were read, and by which edits.',
      ),
    ),
  },
  'RFC 9457 problem document.',
);
export interface Problem extends ReportOf<typeof problem.fields> {}
