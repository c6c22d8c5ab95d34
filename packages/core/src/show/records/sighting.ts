/** What a person saw, standing there: an answer to one question about one thing of the show. */
import { begun, oneOf, shape, text, type Of } from '../../base/field';
import { kindOf, type RecordFrom } from './kind';

export const SUBJECTS = ['lamp', 'slot', 'port', 'universe', 'stream', 'machine', 'interface', 'link'] as const;

/** What something is said of, or asked about. */
export const subject = shape('About', {
  kind: oneOf('Kind', SUBJECTS),
  id: text('Which', 120, { about: 'Id of its record; of a universe its show number.' }),
  part: begun(text('Part', 40, { about: 'Of a machine its port, of a universe its slot; else empty.' }), ''),
});
export interface Subject extends Of<typeof subject.fields> {}

const at = text('Time', 40, { about: 'ISO 8601, UTC; empty if nobody knows.' });

/** Its revision is the edit by which it was answered: what changed on its path since then makes it old. */
export const sighting = kindOf(
  { one: 'sighting', many: 'sightings', table: 'sighting', schemaName: 'Sighting' },
  {
    about: subject,
    question: text('Question', 80, { about: 'A name that stays: `lit`, `firewall`, `order`.' }),
    answer: oneOf('Answer', ['yes', 'no'], { what: 'The answer' }),
    by: text('Seen by', 80),
    at,
  },
);

export interface Sighting extends RecordFrom<typeof sighting> {}
