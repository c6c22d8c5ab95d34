/** What lamps told of themselves as a table (RFC 4180): hours, temperatures, addresses, what is wrong. */
import type { RollReply } from '../../truth/roll';
import { tableOf, writeTable } from './table';

const HEADS = [
  'Number',
  'Name',
  'State',
  'UID',
  'Port',
  'Planned',
  'Address',
  'Mode',
  'Label',
  'Maker',
  'Model',
  'Firmware',
  'Hours',
  'Light hours',
  'Strikes',
  'Switched on',
  'Sensors',
  'Errors',
] as const;

export const writeRollTable = ({ rows }: Pick<RollReply, 'rows'>): string =>
  writeTable(
    tableOf(
      HEADS,
      rows.map(({ number, name, state, uid, port, planned, seen }) => [
        number === 0 ? '' : number,
        name,
        state,
        uid,
        port,
        planned,
        seen?.startAddress ?? '',
        seen?.modes[seen.mode - 1]?.name ?? '',
        seen?.label ?? '',
        seen?.maker ?? '',
        seen?.model ?? '',
        seen?.firmware ?? '',
        seen?.hours ?? '',
        seen?.lightHours ?? '',
        seen?.strikes ?? '',
        seen?.switchedOn ?? '',
        seen?.sensors.map((one) => `${one.name} ${one.text}`).join('; ') ?? '',
        seen?.errors.join('; ') ?? '',
      ]),
    ),
  );
