/** A walk through lamps: what it covers, in which order, and what each lamp shows. */
import { atLeastOne, begun, list, name, oneOf, shape, text, type Of } from '../../base/field';
import { kindOf, type RecordFrom } from './kind';

export const WALK_COVERS = ['rig', 'place', 'port', 'universe', 'chosen', 'failed', 'changed'] as const;
export const WALK_ORDERS = ['number', 'address', 'place', 'way'] as const;
export const WALK_UNITS = ['lamp', 'channel'] as const;
export const WALK_PICTURES = ['full', 'colours', 'pan and tilt', 'channels', 'cells'] as const;
export type WalkOrder = (typeof WALK_ORDERS)[number];
export type WalkPicture = (typeof WALK_PICTURES)[number];

const covers = shape('Covers', {
  kind: oneOf('Covers', WALK_COVERS, { about: 'What the lamps were chosen by.' }),
  id: begun(text('Which', 120, { about: 'Id of the place, machine or walk; of a universe its number.' }), ''),
  part: begun(text('Part', 40, { about: 'Of a machine its port.' }), ''),
});
export interface WalkCovers extends Of<typeof covers.fields> {}

export const walk = kindOf(
  { one: 'walk', many: 'walks', table: 'walk', schemaName: 'Walk' },
  {
    name: name('Name', { what: 'The walk’s name' }),
    by: text('Begun by', 80),
    at: text('Time', 40, { about: 'ISO 8601, UTC.' }),
    covers,
    order: oneOf('Order', WALK_ORDERS, { about: 'Way: the shortest over the plan.' }),
    unit: oneOf('One at a time', WALK_UNITS),
    pictures: atLeastOne(
      list('Pictures', oneOf('Picture', WALK_PICTURES), 20, {
        what: 'The pictures',
        about: 'What each lamp shows, one after another.',
      }),
      'Choose at least one picture.',
    ),
    lampIds: atLeastOne(
      list('Lamps', text('Lamp', 80), 20_000, { what: 'The lamps', about: 'In the order in which they are walked.' }),
      'A walk needs at least one lamp.',
    ),
  },
);

export interface Walk extends RecordFrom<typeof walk> {}
