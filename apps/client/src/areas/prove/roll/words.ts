/** States of the roll call as the design shows them. */
import type { LampOutcome, RollRow } from '@taxiarch/core/truth/roll';
import type { StateName } from '@/ui';

export const OUTCOME_MARKS = {
  done: 'done',
  refused: 'refused',
  'no answer': 'no answer',
  'not known': 'not supported',
} as const satisfies Readonly<Record<LampOutcome['state'], StateName>>;

/** What needs a person first. */
export const ROLL_ORDER: readonly RollRow['state'][] = [
  'differs',
  'missing',
  'no answer',
  'stranger',
  'not known',
  'cannot be asked',
  'cannot answer',
  'as planned',
];
