/** Settings of a node kept under a name. */
import { begun, name, nullable, reference, text } from '../../base/field';
import { kindOf, type RecordFrom } from './kind';
import { ports } from './port';

const at = text('Time', 40, { about: 'ISO 8601, UTC.' });

export const snapshot = kindOf(
  { one: 'snapshot', many: 'snapshots', table: 'snapshot', schemaName: 'Snapshot' },
  {
    name: name('Name', { what: 'The snapshot’s name' }),
    at: { ...at, rule: at.rule.required('The time is missing.') },
    /** Whose they were; null if they came from elsewhere */
    machineId: nullable(reference('Machine')),
    about: begun(text('Description', 400), ''),
    ports,
  },
);

export interface Snapshot extends RecordFrom<typeof snapshot> {}
