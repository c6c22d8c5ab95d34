/** The show itself; there is one. */
import { begun, name, text } from '../../base/field';
import { keptFile } from './common';
import { kindOf, type RecordFrom } from './kind';

export const show = kindOf(
  { one: 'show', many: 'shows', table: 'show', schemaName: 'ShowInfo' },
  {
    name: name('Name', { what: 'The show’s name' }),
    about: begun(text('Description', 2000), ''),
    /** The rig file (MVR) that the show was last taken from, so that its other parts go out again. */
    file: keptFile,
  },
);

export interface ShowInfo extends RecordFrom<typeof show> {}
