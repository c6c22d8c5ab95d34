/** The text messages of the feed as the documents show them. */
import { integer, listOf, orNone, orNull, plain, report, word, words, type JsonSchema } from '../../base/field';

const says = (type: string, fields: Parameters<typeof report>[1], about: string): JsonSchema =>
  report('', { type: word([type]), ...fields }, about).schema;

/** The messages as the documents show them. */
export const FEED_MESSAGES: {
  readonly toClient: readonly JsonSchema[];
  readonly toServer: readonly JsonSchema[];
} = {
  toClient: [
    says(
      'live',
      { live: plain({ $ref: '#/components/schemas/Live' }) },
      'Twice a second; `nodes` null while they are as last told.',
    ),
    says('edit', { edit: plain({ $ref: '#/components/schemas/Edit' }) }, 'After each edit.'),
    says(
      'reread',
      { seq: integer('Of the last edit.') },
      'After an edit too large to be told, or when edits were missed: read the show anew.',
    ),
    says('you', { holder: words() }, 'First of all: the name under which reports tell what this client holds.'),
    says('there', {}, 'Once a second: the connection stands. Answer `here` to be missed when you are gone.'),
  ],
  toServer: [
    says('watch', { keys: listOf(integer()) }, 'Universes whose levels are wanted, all of them anew.'),
    says(
      'inspect',
      { key: orNull(integer()), slot: orNone(integer()) },
      'What each stream says of one slot (from 0), or of none.',
    ),
    says('here', {}, 'The answer to `there`.'),
  ],
};
