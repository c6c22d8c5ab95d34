/** What is wished of lamps, and how it came out. */
import { integer, listOf, orNone, plain, report, word, words, yesNo, type ReportOf } from '../../base/field';

/** What is to be set at a lamp; what is left out stays. */
export interface LampWish {
  readonly uid: string;
  /** 1–512 */
  readonly address?: number | undefined;
  /** Number of the mode, from 1 */
  readonly mode?: number | undefined;
  readonly label?: string | undefined;
}

export const lampOutcome = report('LampOutcome', {
  uid: words(),
  state: word(
    ['done', 'refused', 'no answer', 'not known'],
    'Done: read back as wished. Refused: it said no, or says another value. No answer: nobody knows whether it was set.',
  ),
  says: words('In a sentence.'),
});
export interface LampOutcome extends ReportOf<typeof lampOutcome.fields> {}

const meant = report('LampChoice', { value: integer(), label: words() });

export const lampParameter = report('LampParameter', {
  pid: integer(),
  part: integer('Which of its values this is, from 0; most have one.'),
  name: words(),
  value: plain<number | string | null>(
    { anyOf: [{ type: 'integer' }, { type: 'string' }, { type: 'null' }] },
    'Null if it does not say, or cannot be asked.',
  ),
  text: words('With its unit, in words.'),
  unit: words('What one of the number counts, as `s` or `× 0.1 s`.'),
  least: integer(),
  most: integer(),
  choices: listOf<ReportOf<typeof meant.fields>>(meant, 'Values with a meaning; empty for a plain number or text.'),
  settable: yesNo(),
  isText: yesNo(),
  why: orNone(words('Why it does not say.')),
});
export interface LampParameter extends ReportOf<typeof lampParameter.fields> {}
