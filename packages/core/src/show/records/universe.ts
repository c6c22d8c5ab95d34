/** A show universe and how it is planned to travel. */
import { MERGE_MODES } from '../../signal/merge';
import { protocol, showUniverse, wireNumber } from './common';
import { begun, oneOf, text } from '../../base/field';
import { kindOf, type RecordFrom } from './kind';

export const universe = kindOf(
  { one: 'universe', many: 'universes', table: 'universe', schemaName: 'Universe' },
  {
    /** Show universe, from 1 */
    number: showUniverse('Number'),
    name: begun(text('Name', 120, { what: 'The universe’s name' }), ''),
    protocol,
    /** Number on the wire: sACN 1–63999, Art-Net Port-Address 0–32767. */
    wire: wireNumber,
    merge: begun(oneOf('Merge', MERGE_MODES), 'htp'),
  },
);

export interface Universe extends RecordFrom<typeof universe> {}
