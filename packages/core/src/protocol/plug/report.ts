/** How the plug of an adapter stands, and serial ports that are there. */
import { integer, orNull, real, report, word, words, yesNo, type ReportOf } from '../../base/field';

export const serialPort = report('SerialPort', {
  path: words(),
  maker: words('Empty where the system does not tell.'),
  serial: words('Serial number of the adapter, by which it is known in any socket; empty where it has none.'),
  name: words('As the system describes it.'),
});
export interface SerialPortReport extends ReportOf<typeof serialPort.fields> {}

export const PLUG_STATES = ['off', 'opening', 'runs', 'gone'] as const;

export const plugReport = report('Plug', {
  machineId: words(),
  use: word(['out', 'in']),
  state: word(PLUG_STATES, '`gone`: it is not plugged in or does not answer; it goes on by itself when it is back.'),
  why: words('Why it is gone, or cannot keep the rate; empty if all is well.'),
  by: words('Who asked for it.'),
  since: integer('When that was, ms.'),
  path: words('Where it is now: a path of this computer, or host and port.'),
  rate: real('Frames a second that leave or come.'),
  wanted: integer('Frames a second that are planned.'),
  frames: integer(),
  back: integer('Times it went and came back.'),
  wentAt: orNull(integer('When it last went, ms.')),
  silent: yesNo('Nobody sends what it carries.'),
});
export interface PlugReport extends ReportOf<typeof plugReport.fields> {}
