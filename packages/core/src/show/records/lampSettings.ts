/** How lamps were set, as they told it themselves, kept under a name so that it can be put back. */
import { channel } from './common';
import { begun, list, name, nullable, pattern, shape, text, whole, type Of } from '../../base/field';
import { kindOf, type RecordFrom } from './kind';

const setting = shape('Setting', {
  uid: pattern('UID', 13, /^[0-9a-f]{4}:[0-9a-f]{8}$/, 'A UID is four and eight hexadecimal digits.'),
  address: nullable(channel('Start channel')),
  personality: whole('Mode', 1, 255, { about: 'Number of the mode, as the lamp counts them.' }),
  label: begun(text('Label', 32), ''),
});
export interface LampSetting extends Of<typeof setting.fields> {}

export const lampSettings = kindOf(
  { one: 'settings of lamps', many: 'settings of lamps', table: 'lamp_settings', schemaName: 'LampSettings' },
  {
    name: name('Name', { what: 'The name' }),
    at: text('Time', 40, { about: 'ISO 8601, UTC.' }),
    lamps: list<LampSetting>('Lamps', setting, 10_000, { what: 'The lamps' }),
  },
);

export interface LampSettings extends RecordFrom<typeof lampSettings> {}
