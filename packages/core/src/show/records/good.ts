/** How all stood when a person kept it as good. */
import { list, shape, text, type Of } from '../../base/field';
import { kindOf, type RecordFrom } from './kind';

const state = shape('State', {
  about: text('About', 200, { about: 'What it is of, as a word and an id.' }),
  name: text('Name', 200),
  says: text('Stood', 400),
});
export interface KeptState extends Of<typeof state.fields> {}

export const good = kindOf(
  { one: 'state kept as good', many: 'states kept as good', table: 'good', schemaName: 'Good' },
  {
    at: text('Time', 40, { about: 'ISO 8601, UTC.' }),
    by: text('Kept by', 80),
    states: list<KeptState>('States', state, 20_000, { what: 'The states' }),
  },
);

export interface Good extends RecordFrom<typeof good> {}
