/** What a person said of a lamp, or of one of its channels, in a walk. */
import { begun, initialOf, list, oneOf, pattern, reference, shape, text, whole, type Of } from '../../base/field';
import { kindOf, type RecordFrom } from './kind';

export const MARK_RESULTS = ['proved', 'failed', 'skipped'] as const;
export const MARK_REASONS = [
  '',
  'dark',
  'wrong lamp',
  'wrong colour',
  'wrong way',
  'flickers',
  'moves wrong',
  'does something else',
  'other',
] as const;
export type MarkReason = (typeof MARK_REASONS)[number];

const MOST_CHANNELS = 65_535;

const fact = shape('Fact', { about: text('About', 200), says: text('Said', 400) });
/** How something on the path stood, as its device said it. */
export interface MarkFact extends Of<typeof fact.fields> {}

export const mark = kindOf(
  { one: 'mark', many: 'marks', table: 'mark', schemaName: 'Mark' },
  {
    walkId: reference('Walk', { what: 'The walk' }),
    lampId: reference('Lamp', { what: 'The lamp', about: 'A lamp, or a run of pixels.' }),
    channel: begun(
      whole('Channel', 0, MOST_CHANNELS, {
        about: 'As it is counted in the lamp’s mode, from 1; 0 for the lamp as a whole.',
      }),
      0,
    ),
    result: oneOf('Result', MARK_RESULTS),
    why: begun(oneOf('Why', MARK_REASONS), ''),
    did: begun(
      whole('Did', 0, MOST_CHANNELS, {
        about: 'The channel whose work was seen instead, counted likewise; 0 for none.',
      }),
      0,
    ),
    note: begun(text('Note', 2000), ''),
    photo: begun(
      pattern('Photograph', 64, /^$|^[0-9a-f]{64}$/, 'A photograph is named by its SHA-256.', {
        about: 'SHA-256 of a picture that was sent before; empty for none.',
      }),
      '',
    ),
    knew: begun(
      whole('Knew', 0, Number.MAX_SAFE_INTEGER, {
        about: 'Last edit that the device knew on which it was marked; what was edited after it makes the mark old.',
      }),
      0,
    ),
    by: text('Marked by', 80),
    timeCode: begun(
      text('Time code', 40, {
        about: 'Time code that was heard when it was marked, as 01:02:03:04; empty if none ran.',
      }),
      '',
    ),
    at: text('Time', 40, { about: 'ISO 8601, UTC, of the device on which it was marked.' }),
    stood: begun(
      list<MarkFact>('Stood', fact, 200, { what: 'How it stood', about: 'How devices on its path stood then.' }),
      [],
    ),
  },
);

export interface Mark extends RecordFrom<typeof mark> {}
/** What a mark is before anybody says more of it. */
export const PLAIN_MARK = initialOf(mark.fields);
