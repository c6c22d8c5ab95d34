/** Lamps as they tell it themselves, and the ports that were asked for them. */
import { integer, listOf, orNull, real, report, word, words, yesNo, type ReportOf } from '../../base/field';

const seenMode = report('', { name: words(), slots: integer() });

const seenSensor = report('', {
  name: words(),
  value: real('In its own unit.'),
  text: words('With its unit.'),
  least: real('Of what is normal.'),
  most: real('Of what is normal.'),
  normal: yesNo('It is within that.'),
});

/** A lamp that answered, or one that was found and then said nothing. */
export const seenLamp = report('SeenLamp', {
  uid: words(),
  address: words('Of its node.'),
  portAddress: integer(),
  says: word(['all', 'nothing'], 'Nothing: the node found it, and it answers no question.'),
  startAddress: orNull(integer('1–512; null if it has none.')),
  slots: integer('Of its mode now.'),
  mode: integer('Number of its mode, from 1.'),
  modes: listOf(seenMode, 'As far as it tells them.'),
  label: words(),
  maker: words(),
  model: words(),
  firmware: words(),
  sensors: listOf(seenSensor),
  hours: orNull(integer('Of the device.')),
  lightHours: orNull(integer('Of its light source.')),
  strikes: orNull(integer()),
  switchedOn: orNull(integer('How often.')),
  errors: listOf(words(), 'What it says is wrong, a sentence each.'),
  parameters: listOf(integer(), 'What it can be asked and set beside what all can.'),
  at: integer('Unix time of its last answer, ms.'),
});
export interface SeenLamp extends ReportOf<typeof seenLamp.fields> {}

/** A port of a node, as it stands for asking lamps. */
export const rollPort = report('RollPort', {
  machineId: words('Of its machine; empty for one that nobody planned.'),
  name: words('Of its node.'),
  number: integer('Of the port, from 1.'),
  address: words(),
  portAddress: integer(),
  state: word(
    ['asked', 'asking', 'not asked', 'off', 'cannot', 'away', 'silent'],
    'Asking: its lamps are being read for the first time. Off: its RDM is off. Cannot: it has none. Away: its node does not answer. Silent: it tells nobody who hangs there.',
  ),
  found: integer('How many hang there, as its node found them.'),
  asked: integer('Requests since this call began.'),
  lost: integer('Of those, how many had to be asked again or were never answered.'),
  used: integer('Milliseconds of its line that this took.'),
  at: integer('Unix time of its last table, ms; 0 if never.'),
});
export interface RollPort extends ReportOf<typeof rollPort.fields> {}

export const rollProgress = report('RollProgress', {
  running: yesNo(),
  done: integer('Lamps of whom is known how they are set.'),
  more: integer('Of whom hours, sensors and errors are known as well.'),
  of: integer('Of so many found.'),
  ports: integer('Ports whose tables are known.'),
  ofPorts: integer(),
  began: integer('Unix time, ms; 0 if never.'),
  ended: integer('Unix time, ms; 0 while it runs.'),
  cancelled: yesNo(),
  why: words('Why it came to an end before its time; empty if it did not.'),
});
export interface RollProgress extends ReportOf<typeof rollProgress.fields> {}

/** All that is known of lamps at a moment. */
export interface RollNow {
  readonly progress: RollProgress;
  readonly seen: readonly SeenLamp[];
  readonly ports: readonly RollPort[];
  /** Collisions that a person left alone, by their keys */
  readonly leftAlone: readonly string[];
}
