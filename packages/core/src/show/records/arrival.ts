/** A file that was taken over, with what a person decided of it: its next version asks only what is new. */
import { begun, initialOf, list, name, oneOf, plainOf, shape, text, whole, type Field } from '../../base/field';
import { kindOf, type RecordFrom } from './kind';

export const ARRIVAL_FORMS = ['mvr', 'gdtf', 'table', 'show'] as const;

const modePair = shape('Mode', { said: name('As the file says'), mode: name('Mode') });
const typeSaid = shape('Type', {
  /** As the file calls it */
  said: text('As the file calls it', 260),
  typeId: name('Fixture type'),
  modes: list('Modes', modePair, 1000),
});
export type TypeSaid = {
  readonly said: string;
  readonly typeId: string;
  readonly modes: readonly { readonly said: string; readonly mode: string }[];
};

const left = shape('Row', { key: text('Row', 400), hash: text('As it was', 80) });

export const arrival = kindOf(
  { one: 'arrival', many: 'arrivals', table: 'arrival', schemaName: 'Arrival' },
  {
    /** Of the file, without what tells its versions apart */
    name: name('Name', { longest: 200 }),
    form: oneOf('Kind of file', ARRIVAL_FORMS),
    at: text('When', 40, { about: 'ISO 8601, UTC.' }),
    /** Heads of a table, in their order; its columns are read alike in every table that has them */
    heads: begun(list('Heads', text('Head', 400), 400), []),
    columns: begun(list('Columns', text('Column', 40), 400, { about: 'What each column means; empty for none.' }), []),
    unit: begun(text('Lengths in', 4), 'm'),
    channelBase: begun(whole('Channels from', 0, 1), 1),
    universeBase: begun(whole('Universes from', 0, 1), 1),
    types: begun(plainOf<readonly TypeSaid[]>(list('Types', typeSaid, 5000) as Field), []),
    /** Rows that were left out on purpose, and as what */
    left: begun(list('Rows left out', left, 100_000), []),
    fields: begun(list('Fields left as they are', text('Field', 80), 40), []),
  },
);

export interface Arrival extends RecordFrom<typeof arrival> {}

/** What an arrival is before anybody says more of it. */
export const PLAIN_ARRIVAL = initialOf(arrival.fields);
