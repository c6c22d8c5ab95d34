/** A sender and the visualiser that is to show what it sends. */
import { protocol, showUniverse } from './common';
import { begun, list, name, oneOf, reference, shape, whole, type Of } from '../../base/field';
import { kindOf, type RecordFrom } from './kind';

/** Many visualisers look for senders only when they begin; some senders look for receivers only then. */
export const START_ORDERS = ['sender', 'visualiser', 'either'] as const;

/** Universes in a row of a link. */
const linkLine = shape('Line', {
  from: showUniverse('First universe'),
  count: whole('How many', 1, 4096, { what: 'How many universes' }),
  to: whole('The visualiser’s universe', 0, 63_999, {
    what: 'The visualiser’s universe',
    about: 'The visualiser’s own number for the first, as its display says it.',
  }),
});
export interface LinkLine extends Of<typeof linkLine.fields> {}

const base = (label: string) =>
  oneOf(label, [0, 1], {
    sentence: 'Numbering begins at 0 or at 1.',
    about: 'What its display calls the first Art-Net universe.',
  });

export const link = kindOf(
  { one: 'link', many: 'links', table: 'link', schemaName: 'Link' },
  {
    name: name('Name', { what: 'The link’s name' }),
    /** Machines both */
    senderId: reference('Sender'),
    visualiserId: reference('Visualiser'),
    protocol,
    senderBase: base('Sender counts from'),
    receiverBase: base('Visualiser counts from'),
    lines: list<LinkLine>('Lines', linkLine, 512, { what: 'The lines' }),
    startsFirst: begun(
      oneOf('Starts first', START_ORDERS, {
        what: 'What starts first',
        about: 'Which of the two must be there before the other.',
      }),
      'sender',
    ),
  },
);

export interface Link extends RecordFrom<typeof link> {}
