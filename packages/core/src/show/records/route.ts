/** Universes heard that Taxiarch sends on as another one, while a person has the route running. */
import { SACN_LAST, SLOTS } from '../../base/address';
import { MOST_PARTS, ROUTE_MERGES, type RouteInput, type RoutePart } from '../../signal/route';
import { addresses, channel, delivery, ipv4, priority, wireUniverse } from './common';
import {
  atLeastOne,
  begun,
  flag,
  initialOf,
  list,
  must,
  name,
  nullable,
  oneOf,
  shape,
  text,
  whole,
  when,
} from '../../base/field';
import { kindOf, type RecordFrom } from './kind';

/** Most inputs of a route. */
const MOST_INPUTS = 32;
const routeInput = shape('Input', {
  wire: wireUniverse,
  sender: begun(
    text('Sender', 120, { about: 'Name or address of the one sender that counts; empty for all senders merged.' }),
    '',
  ),
  shift: begun(
    whole('Shift', -(SLOTS - 1), SLOTS - 1, {
      unit: 'channels',
      about: 'Channels by which its slots move up; what would leave 1–512 is dropped.',
    }),
    0,
  ),
  /** Where inputs are merged by priority */
  priority: priority(),
});

export const PLAIN_INPUT = initialOf(routeInput.fields);

const origin = shape(
  'Where the part comes from',
  { wire: wireUniverse, channel: channel() },
  {
    what: 'Where the part comes from',
  },
);

const routePart = shape('Part', {
  first: channel('First channel'),
  last: must(
    channel('Last channel'),
    'rises',
    'A part ends before it begins.',
    (last, { first }) => last >= (first as number),
  ),
  by: oneOf('Held by', ['hand', 'input'], { what: 'Who holds the part' }),
  level: whole('Level', 0, 255),
  /** From an input: the universe, and its channel that goes to `first`; else null */
  from: must(
    nullable(origin),
    'there',
    'Say from which universe the part comes.',
    (from, { by }) => (by === 'hand' ? from === null : from !== null),
    when(
      { by: { const: 'hand' } },
      (own) => ({ [own]: { type: 'null' } }),
      (own) => ({ [own]: { type: 'object' } }),
    ),
  ),
});

export const route = kindOf(
  { one: 'route', many: 'routes', table: 'route', schemaName: 'Route' },
  {
    name: name('Name', { what: 'The route’s name' }),
    /** Rising */
    order: whole('Order in lists', 0, 100_000, { what: 'The order' }),
    inputs: atLeastOne(
      list<RouteInput>('Inputs', routeInput, MOST_INPUTS, { what: 'The inputs' }),
      'A route has at least one input.',
    ),
    merge: begun(oneOf('Merge', ROUTE_MERGES), 'htp'),
    returns: begun(
      oneOf('Return', ['at once', 'by hand'], {
        about: 'Merge `backup`: an input that returns takes over at once, or when a person says so.',
      }),
      'at once',
    ),
    out: wireUniverse,
    interface: begun(
      ipv4('Interface', { about: 'Address of this computer that it leaves by; empty for the one in use.' }),
      '',
    ),
    delivery,
    addresses,
    /** Of what is sent */
    priority: priority(),
    master: begun(whole('Master', 0, 255, { about: 'Scales all that passes through.' }), 255),
    parts: begun(list<RoutePart>('Parts', routePart, MOST_PARTS, { what: 'The parts' }), []),
    sync: begun(
      whole('Let out together', 0, SACN_LAST, {
        about:
          'sACN: the universe of the synchronisation packets that let its frames out; Art-Net: 1 sends ArtSync after each frame; 0 for none.',
      }),
      0,
    ),
    comesBack: begun(
      flag('Comes back', {
        what: 'Coming back',
        about: 'Switched on again when Taxiarch starts, if it ran when it ended.',
      }),
      false,
    ),
  },
);

export interface Route extends RecordFrom<typeof route> {}

/** A route before anybody says more of it. */
export const PLAIN_ROUTE = initialOf(route.fields);
