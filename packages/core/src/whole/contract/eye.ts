/** Matching lamps by eye, over HTTP. */
import { EYE_ANSWERS, eyeReply, type EyeReply } from '../../proving/eye';
import { atLeastOne, flag, list, name, oneOf, optional, plain, plainOf, shape, text } from '../../base/field';
import { at } from './endpoint';

const MOST = 20_000;
const reply = plain<EyeReply>(eyeReply.schema);
const lampIds = (label: string) => list(label, name('Lamp', { longest: 80 }), MOST);

export interface BeginEyeRequest {
  readonly by: string;
  readonly how: 'asked' | 'stretches';
  readonly lampIds: readonly string[];
  readonly forget: 'none' | 'last' | 'all';
}
export interface AnswerEyeRequest {
  readonly lit: string;
  readonly answer: (typeof EYE_ANSWERS)[number];
  readonly lampIds: readonly string[];
  readonly sure?: boolean | undefined;
}

export const EYE_ENDPOINTS = {
  readEye: at('readEye', {
    says: 'The match by eye that runs. Whoever looks on asks every second: without anybody it goes dark.',
    reply,
    problems: ['not-ready'],
  }),
  beginEye: at('beginEye', {
    says: 'Begin to match lamps by eye: they light one by one.',
    body: plainOf<BeginEyeRequest>(
      shape('Request', {
        by: name('Person', { what: 'Say who does this: “by”' }),
        how: oneOf('How', ['asked', 'stretches']),
        lampIds: atLeastOne(lampIds('Lamps'), 'Choose at least one lamp.'),
        forget: oneOf('Forget', ['none', 'last', 'all']),
      }),
    ),
    reply,
    problems: ['not-understood', 'safe', 'busy', 'not-possible', 'not-ready'],
  }),
  answerEye: at('answerEye', {
    says: 'Say which lamp lit, or that it was skipped or not seen; what cannot be right is asked back until it is said to be sure.',
    body: plainOf<AnswerEyeRequest>(
      shape('Request', {
        lit: text('Lit', 80),
        answer: oneOf('Answer', EYE_ANSWERS),
        lampIds: lampIds('Lamps'),
        sure: optional(flag('Sure')),
      }),
    ),
    reply,
    problems: ['not-understood', 'nothing-to-do', 'stale-edit', 'not-here', 'not-possible', 'not-ready'],
  }),
  backEye: at('backEye', {
    says: 'Take the last answer back; what it was about lights again.',
    reply,
    problems: ['nothing-to-do', 'not-ready'],
  }),
  endEye: at('endEye', {
    says: 'End it, and give all back.',
    reply,
    problems: ['nothing-to-do', 'not-ready'],
  }),
} as const;
