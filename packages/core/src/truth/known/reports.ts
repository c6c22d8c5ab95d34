/** What is answered to Why? and to how things stand. */
import {
  integer,
  listOf,
  orNone,
  orNull,
  plain,
  real,
  report,
  word,
  words,
  yesNo,
  type ReportOf,
} from '../../base/field';
import type { Subject } from '../../show/records';
import { KNOWN, type Known } from './known';

/** What one tap does to mend something. */
export type RepairAct =
  /** Push the plan to this node */
  { readonly kind: 'push'; readonly machineId: string } | { readonly kind: 'hand' };

/** How a step of a path stands. */
export const STEP_STATES = ['fine', 'broken', 'open'] as const;

/** How sure a suspect is. */
export const SURENESS = ['certain', 'likely', 'open'] as const;
export type Sureness = (typeof SURENESS)[number];

/** What goes before a sentence that is not certain. */
export const SURE_WORDS: Readonly<Record<Sureness, string>> = { certain: '', likely: 'Likely: ', open: 'It may be: ' };

const subject = plain<Subject>({ type: 'object' });

const pathStep = report('', {
  about: subject,
  kind: words('lamp, slot, visualiser, port, merge, sender, interface.'),
  name: words(),
  planned: words(),
  now: words(),
  known: plain<Known>({ enum: [...KNOWN] }),
  evidence: listOf(words(), 'What that rests on, with its age.'),
  state: word(STEP_STATES),
});

const suspect = report('Suspect', {
  cause: words('Stays the same for one kind of cause.'),
  about: subject,
  says: words(),
  share: real('How likely it is among all that fit, 0–1.'),
  explains: listOf(words(), 'What it explains, in sentences.'),
  against: listOf(words(), 'What it leaves unexplained, or predicts that is not so.'),
  repair: words('What to do.'),
  act: plain<RepairAct>({ type: 'object' }),
});
export interface SuspectReport extends ReportOf<typeof suspect.fields> {}

export const SURE = ['as planned', ...SURENESS, 'not known'] as const;

export const whyReport = report('Why', {
  about: subject,
  sentence: words('The answer in one sentence.'),
  sure: word(SURE),
  path: listOf(pathStep),
  broken: orNull(integer('Index of the first broken step of the path, from the sender; null if none is.')),
  suspects: listOf<SuspectReport>(suspect, 'The likeliest first.'),
  together: integer('So many of the first suspects are there at once; 0 or 1 where one explains all.'),
  question: orNone(report('', { about: subject, question: words(), text: words() })),
  took: real('Milliseconds.'),
});
export interface WhyReport extends ReportOf<typeof whyReport.fields> {}

const trouble = report('Trouble', {
  about: subject,
  /** Of what Why? tells all about it */
  ask: subject,
  cause: words(),
  says: words(),
  sure: word(SURENESS),
  lamps: integer('Lamps and runs of pixels that get no light, or not as planned, because of it.'),
  universes: listOf(integer(), 'Show universes.'),
  repair: words('What to do.'),
  act: plain<RepairAct>({ type: 'object' }),
});
export interface Trouble extends ReportOf<typeof trouble.fields> {}

const height = report('', {
  of: integer(),
  known: integer(),
  old: integer('Of these seen before something changed on the way.'),
});

export interface HeightReport extends ReportOf<typeof height.fields> {}

export const standingReport = report('Standing', {
  verdict: words('In one sentence.'),
  troubles: listOf<Trouble>(trouble, 'What costs most light first.'),
  unexplained: listOf(words(), 'What differs from the plan and no cause explains, in sentences.'),
  more: integer('Further ones.'),
  looked: yesNo('Otherwise time was over before all that differs was looked at.'),
  wire: plain<HeightReport>(height.schema),
  ports: plain<HeightReport>(height.schema),
  lamps: plain<HeightReport>(height.schema),
  asked: plain<HeightReport>(height.schema, 'Lamps that were asked over their cables, and answered as planned.'),
  took: real('Milliseconds.'),
});
export interface StandingReport extends ReportOf<typeof standingReport.fields> {}

export const portForecast = report('PortForecast', {
  nodeId: words(),
  port: integer(),
  name: words(),
  follows: orNull(yesNo('Null where nobody knows.')),
  says: words('Why not, or how far; empty if it simply follows.'),
  mend: words('What would let it follow; empty if nothing is needed.'),
});
export interface PortForecast extends ReportOf<typeof portForecast.fields> {}

export const pushForecast = report('PushForecast', {
  nodeId: words(),
  port: integer(),
  name: words(),
  was: words('How it says that it is set.'),
  becomes: words('How it would be set.'),
  light: word(
    ['goes dark', 'gets light', 'stays dark', 'stays lit', 'not known'],
    'Nobody knows where what is planned cannot be heard from here.',
  ),
  says: words('What it would bring, in a sentence.'),
  lamps: integer('Lamps and runs of pixels behind it, if it goes dark.'),
});
export interface PushForecast extends ReportOf<typeof pushForecast.fields> {}
