/** A lamp of the rig: a fixture of some type and mode, at its address, in its place. */
import { channel, placeId, showUniverse, slotAddress } from './common';
import { begun, flag, initialOf, list, metres, name, nullable, oneOf, reference, text, whole } from '../field';
import { kindOf, type RecordFrom } from './kind';

/** Colours that lamps are marked with, so that people find them again; they mean what people let them mean. */
export const TAGS = ['', 'red', 'orange', 'yellow', 'green', 'teal', 'violet', 'grey'] as const;
export type Tag = (typeof TAGS)[number];

export const lamp = kindOf(
  { one: 'lamp', many: 'lamps', table: 'lamp', schemaName: 'Lamp' },
  {
    number: whole('Number', 1, 999_999, {
      what: 'The lamp’s number',
      about: 'The fixture number that people call it by.',
    }),
    name: name('Name', { what: 'The lamp’s name' }),
    typeId: reference('Fixture type', { what: 'The type' }),
    mode: name('Mode', { about: 'Name of one of the type’s modes.' }),
    /** Show universe, from 1 */
    universe: showUniverse(),
    channel: channel('Start channel'),
    blocks: begun(
      list('Further addresses', slotAddress, 63, {
        what: 'The further addresses',
        about: 'Where its second and further address blocks begin, if its mode has any.',
      }),
      [],
    ),
    placeId,
    groups: begun(
      list('Groups', name('Group', { what: 'The group’s name' }), 20, {
        what: 'The groups',
        about: 'Names of the groups that it is in, outermost first.',
      }),
      [],
    ),
    tag: begun(oneOf('Colour mark', TAGS, { sentence: 'The tag is not one that we know.' }), ''),
    twin: begun(
      nullable(text('Twin', 80, { about: 'Lamps with the same word here share their address on purpose.' })),
      null,
    ),
    locked: begun(flag('Locked', { what: 'The lock', about: 'Stands fast on the plan.' }), false),
    x: begun(metres('x', { about: 'To starboard.' }), 0),
    y: begun(metres('y', { about: 'To the bow.' }), 0),
    z: begun(metres('z', { about: 'Up.' }), 0),
  },
);

export interface Lamp extends RecordFrom<typeof lamp> {}

/** What a lamp is before anybody says more of it. */
export const PLAIN_LAMP = initialOf(lamp.fields);
