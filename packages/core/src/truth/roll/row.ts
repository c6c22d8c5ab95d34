/** One lamp of the roll call: how it stands, planned beside seen. */
import { integer, listOf, orNull, plain, report, word, words, type ReportOf } from '../../base/field';
import { seenLamp, type SeenLamp } from './seen';

export const ROLL_STATES = [
  'as planned',
  'differs',
  'missing',
  'no answer',
  'stranger',
  'cannot answer',
  'cannot be asked',
  'not known',
] as const;
export type RollState = (typeof ROLL_STATES)[number];

export const rollRow = report('RollRow', {
  lampId: words('Empty for a stranger.'),
  number: integer('Of the lamp; 0 for a stranger.'),
  name: words(),
  place: words('Id of its place; empty for none.'),
  uid: words('Empty while none is matched.'),
  state: word(ROLL_STATES),
  says: words('How it stands, in a sentence.'),
  confidence: word(['known', 'sure', 'likely', ''], 'Of the match; empty without one.'),
  because: words('What the match rests on.'),
  differences: listOf(report('', { what: word(['address', 'mode', 'port', 'type']), planned: words(), seen: words() })),
  port: words('Where it hangs, as people say it; empty if nobody knows.'),
  machineId: words('Of that node; empty for a stranger’s.'),
  portNumber: integer('From 1; 0 if nobody knows.'),
  planned: words('Address and mode.'),
  seen: orNull(plain<SeenLamp>(seenLamp.schema)),
  wanted: orNull(
    report('', {
      address: integer('To be set at the lamp, 1–512.'),
      mode: orNull(integer('Number of the mode to be set; null if it has none like that.')),
    }),
  ),
});
export interface RollRow extends ReportOf<typeof rollRow.fields> {}
