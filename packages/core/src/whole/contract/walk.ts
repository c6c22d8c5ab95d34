/** Walks, over HTTP: who goes where, and what they mark. */
import {
  atLeastOne,
  integer,
  list,
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
  word,
  words,
  type ReportOf,
} from '../../base/field';
import { DESCRIPTIONS, type Mark } from '../../show/records';
import { WALK_COVERS, WALK_ORDERS, type WalkCovers, type WalkOrder } from '../../show/records';
import {
  WALK_STATES,
  walkPart,
  walkReply,
  walker,
  type WalkPart,
  type WalkReply,
  type Walker,
} from '../../proving/walk';
import { at } from './endpoint';
import { SHOWN } from './picture';

const MOST_MARKS = 5000;
const { stood: _stood, walkId: _walkId, ...markFields } = DESCRIPTIONS.mark.fields;
const mark = shape('Mark', { id: name('Id', { longest: 80 }), ...markFields });

/** A mark as a phone sends it: what devices said then is added where it is known. */
export type GivenMark = Omit<Mark, 'rev' | 'walkId' | 'stood'>;

const storedReply = report('MarksStored', {
  stored: integer('So many are new.'),
  known: integer('So many were there already, by their ids.'),
});

export const WALK_WANTS = ['stay', 'next', 'this'] as const;

const stepFields = {
  walker: name('Walker', { longest: 80, what: 'Say which phone: “walker”' }),
  by: name('Person', { what: 'Say who walks: “by”' }),
  part: walkPart,
  want: oneOf('Want', WALK_WANTS, { about: 'Stay: only to say that one is there.' }),
  from: text('From', 120, { about: 'Key of what was in hand; empty for the begin.' }),
  this: text('This', 120, { about: 'Key of what is wanted, where one is.' }),
  done: list('Done', text('Key', 120), 20_000, { about: 'Keys that were marked and may not have come yet.' }),
  light: optional(shape('Light', SHOWN)),
};

export interface StepRequest {
  readonly walker: string;
  readonly by: string;
  readonly part: WalkPart;
  readonly want: (typeof WALK_WANTS)[number];
  readonly from: string;
  readonly this: string;
  readonly done: readonly string[];
  /** What it shows is lit; left out, nothing is */
  readonly light?: { readonly speed: number; readonly level: number } | undefined;
}

const stepReply = report('WalkStep', {
  at: words('Key of what is in hand; empty at the end.'),
  lighting: word(['on', 'off', 'safe', 'refused'], 'Refused: why stands in trouble.'),
  trouble: words(),
  left: integer('Open, for everybody.'),
  others: listOf<Walker>(walker, 'Whoever else walks now.'),
  states: listOf(
    report('', { key: words(), state: word(WALK_STATES) }),
    'Whatever is marked; what is not here is untried.',
  ),
});
export interface StepReply extends ReportOf<typeof stepReply.fields> {}

const swaps = report('Swaps', {
  swaps: listOf(
    report('', {
      lampId: words(),
      sentence: words(),
      repairs: listOf(
        report('', {
          sentence: words(),
          before: words(),
          after: words(),
          changes: plain<readonly object[]>({ type: 'array', items: { type: 'object' } }),
        }),
      ),
    }),
  ),
});
export interface SwapsReply extends ReportOf<typeof swaps.fields> {}

const photoReply = report('Photograph', { sha256: words() });

const coveredReply = report('Covered', {
  lampIds: listOf(words(), 'In the order of the walk.'),
  metres: orNull(integer('Length of the way over the plan, m; null for other orders.')),
});
export interface CoveredReply extends ReportOf<typeof coveredReply.fields> {}

export interface CoveredRequest {
  readonly covers: WalkCovers;
  readonly order: WalkOrder;
  readonly chosen: readonly string[];
}

export const WALK_ENDPOINTS = {
  coverWalk: at('coverWalk', {
    says: 'Which lamps a walk would cover, and in which order; nothing is written.',
    body: plainOf<CoveredRequest>(
      shape('Request', {
        covers: shape('Covers', {
          kind: oneOf('Covers', WALK_COVERS),
          id: text('Which', 120),
          part: text('Part', 40),
        }),
        order: oneOf('Order', WALK_ORDERS),
        chosen: list('Lamps', text('Lamp', 80), 20_000),
      }),
    ),
    reply: coveredReply,
    problems: ['not-understood'],
  }),
  readWalk: at('readWalk', {
    says: 'How a walk stands: every item with its marks, and what changed since.',
    params: { walk: words() },
    reply: plain<WalkReply>(walkReply.schema),
    problems: ['not-here', 'not-ready'],
  }),
  readSwaps: at('readSwaps', {
    says: 'Channels of a walk that prove to do each other’s work, with the edits that would mend the plan.',
    params: { walk: words() },
    reply: swaps,
    problems: ['not-here'],
  }),
  stepWalk: at('stepWalk', {
    says: 'Walk on: what comes next for a phone, in nobody else’s hand; it is lit if that is wanted.',
    params: { walk: words() },
    body: plainOf<StepRequest>(shape('Request', stepFields)),
    reply: stepReply,
    problems: ['not-understood', 'not-here', 'taken', 'not-ready'],
  }),
  leaveWalk: at('leaveWalk', {
    says: 'Leave a walk; what was in hand is open again, and given back.',
    params: { walk: words() },
    body: shape('Request', { walker: stepFields.walker }),
    status: 204,
    problems: ['not-understood'],
  }),
  markWalk: at('markWalk', {
    says: 'Marks, in the order in which they were made; one that is there already, by its id, is not written again.',
    params: { walk: words() },
    body: plainOf<{ readonly marks: readonly GivenMark[] }>(
      shape('Request', { marks: atLeastOne(list('Marks', mark, MOST_MARKS), 'Send at least one mark.') }),
    ),
    reply: storedReply,
    problems: ['not-understood', 'not-here'],
  }),
  sendPhoto: at('sendPhoto', {
    says: 'A photograph, JPEG or PNG; it is kept by its SHA-256.',
    body: { file: 'image/*' },
    reply: photoReply,
    problems: ['not-understood', 'too-large'],
  }),
  readPhoto: at('readPhoto', {
    says: 'A photograph that was kept.',
    params: { sha256: words() },
    reply: { file: 'image/jpeg' },
    problems: ['not-here'],
  }),
} as const;
