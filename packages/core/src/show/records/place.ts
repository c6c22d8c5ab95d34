/** Where lamps and machines stand. */
import { name, whole } from '../../base/field';
import { kindOf, type RecordFrom } from './kind';

export const place = kindOf(
  { one: 'place', many: 'places', table: 'place', schemaName: 'Place' },
  {
    name: name('Name', { what: 'The place’s name' }),
    /** Rising */
    order: whole('Order in lists', 0, 100_000, { what: 'The order' }),
  },
);

export interface Place extends RecordFrom<typeof place> {}
