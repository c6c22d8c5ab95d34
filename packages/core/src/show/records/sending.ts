/** What a machine is planned to send. */
import { SHOW_UNIVERSE_LAST, lastWireNumber, type WireUniverse } from '../../base/address';
import { addresses, delivery, note, priority, showUniverse, wireUniverse } from './common';
import { begun, flag, initialOf, list, must, nullable, oneOf, shape, text, whole, type Of } from '../../base/field';

/** How a sender's flag is cut and filled; with its letter this tells it apart without colour. */
export const PENNANT_CUTS = ['swallow', 'notch', 'square', 'triangle'] as const;
export const PENNANT_FILLS = ['plain', 'dots', 'bars', 'chevrons'] as const;
export type PennantCut = (typeof PENNANT_CUTS)[number];
export type PennantFill = (typeof PENNANT_FILLS)[number];

const letter = text('Letter', 1);
const pennant = shape('Pennant', {
  letter: { ...letter, rule: letter.rule.required('A pennant has one letter.') },
  cut: oneOf('Cut', PENNANT_CUTS),
  fill: oneOf('Fill', PENNANT_FILLS),
});
export interface Pennant extends Of<typeof pennant.fields> {}

/** Most universes that one line of a sender's table holds. */
const MOST_IN_LINE = 4096;

/** Universes in a row that a sender sends in one and the same way. */
export const sendLine = shape('Line', {
  /** First show universe */
  from: showUniverse('First universe'),
  count: begun(
    must(
      whole('How many', 1, MOST_IN_LINE, { what: 'How many universes' }),
      'fits',
      `Universes end at ${SHOW_UNIVERSE_LAST}.`,
      (count, { from }) => (from as number) + count - 1 <= SHOW_UNIVERSE_LAST,
    ),
    1,
  ),
  /** Where the first goes on the wire, the others following it; null if each travels as its universe is planned. */
  to: begun<WireUniverse | null>(
    must(
      nullable(wireUniverse),
      'fits',
      'The last of them would lie beyond what the protocol can number.',
      (to, { count }) => to === null || to.number + (count as number) - 1 <= lastWireNumber(to.protocol),
    ),
    null,
  ),
  interface: begun(
    text('Interface', 120, { about: 'Name of the sender’s interface that it leaves by; empty for any.' }),
    '',
  ),
  delivery,
  addresses,
  rate: begun(whole('Rate', 1, 1000, { unit: 'Hz', about: 'More than 44 is more than DMX carries.' }), 40),
  priority: priority(),
  slotPriority: begun(flag('Priority for each slot', { what: 'The priority for each slot' }), false),
  on: begun(flag('On', { what: 'On' }), true),
  whenIdle: begun(
    flag('Sends when idle', { what: 'Sending when idle', about: 'Goes on sending while nothing changes.' }),
    true,
  ),
  note: note(),
});
export interface SendLine extends Of<typeof sendLine.fields> {}

/** A line before anybody says more of it. */
export const PLAIN_LINE = initialOf(sendLine.fields);

/** What a machine is planned to send, line by line, and the flag under which its values are shown. */
export const sending = shape('Sending', {
  lines: list<SendLine>('Lines', sendLine, 512, { what: 'The lines' }),
  pennant,
});
export interface Sending extends Of<typeof sending.fields> {}
