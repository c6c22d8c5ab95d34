/** A lamp of the rig: a fixture of some type and mode, at its address, in its place. */
import { lampAddress, placeId } from './common';
import {
  begun,
  flag,
  initialOf,
  list,
  metres,
  name,
  nullable,
  oneOf,
  pattern,
  reference,
  shape,
  text,
  whole,
} from '../../base/field';
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
    /** Show universe, from 1; 0 where it has no address, as its channel is then */
    ...lampAddress,
    blocks: begun(
      list('Further addresses', shape('Address', lampAddress), 63, {
        what: 'The further addresses',
        about: 'Where its second and further address blocks begin, if its mode has more than one.',
      }),
      [],
    ),
    placeId,
    groups: begun(
      list('Groups', name('Group', { what: 'The group’s name' }), 200, {
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
    uid: begun(
      pattern(
        'UID',
        13,
        /^$|^[0-9a-f]{4}:[0-9a-f]{8}$/,
        'A UID is four and eight hexadecimal digits, as in 7ff1:00000012.',
        {
          about: 'By which it is known when lamps are asked by RDM; empty while that is not known.',
        },
      ),
      '',
    ),
    /** What papers and files of others say beside the number */
    written: begun(
      text('Number as written', 40, { about: 'As the papers call it where that is no plain number: A12, 7b.' }),
      '',
    ),
    unit: begun(text('Unit number', 40, { about: 'Its number at its hanging position.' }), ''),
    position: begun(text('Hanging position', 120), ''),
    class: begun(text('Class', 120), ''),
    function: begun(text('Function', 120, { about: 'What it is for: front light, say.' }), ''),
    gel: begun(text('Gel', 120, { about: 'The colour filter in it, as the papers say.' }), ''),
    circuit: begun(text('Circuit', 40, { about: 'The circuit or socket that powers it.' }), ''),
    notes: begun(text('Notes', 400), ''),
    uuid: begun(
      pattern(
        'Id in files',
        36,
        /^$|^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/,
        'An id in files is a UUID in small letters.',
        { about: 'By which a scene file (MVR) knows it; empty while it was in none.' },
      ),
      '',
    ),
    x: begun(metres('x', { about: 'To starboard.' }), 0),
    y: begun(metres('y', { about: 'To the bow.' }), 0),
    z: begun(metres('z', { about: 'Up.' }), 0),
  },
);

export interface Lamp extends RecordFrom<typeof lamp> {}

/** What a lamp is before anybody says more of it. */
export const PLAIN_LAMP = initialOf(lamp.fields);
