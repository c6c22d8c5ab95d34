/** What well-formed routes, controls and links look like. */
import { lazy, number, object, string } from 'yup';
import { SLOTS } from '../address';
import { flag, ipv4, list, name, oneOf, protocol, row, showUniverse, text, whole, wireUniverse } from './fields';
import { DELIVERIES } from './records';
import { MOST_PARTS, ROUTE_MERGES, START_ORDERS } from './routing';

const channel = whole('The channel', 1, SLOTS);
const priority = whole('The priority', 0, 200);

/** Most universes of a route, and most of its parts. */
const MOST_INPUTS = 32;

const part = object({
  first: channel,
  last: channel.test(
    'rises',
    'A part ends before it begins.',
    (last, { parent }) => last >= (parent as { first: number }).first,
  ),
  by: oneOf('Who holds the part', ['hand', 'input']),
  level: whole('The level', 0, 255),
  from: object({ wire: wireUniverse, channel })
    .noUnknown()
    .nullable()
    .defined('Where the part comes from is missing.')
    .test('there', 'Say from which universe the part comes.', (from, { parent }) =>
      (parent as { by: string }).by === 'hand' ? from === null : from !== null,
    ),
}).noUnknown();

export const route = object({
  ...row,
  name: name('The route’s name'),
  order: whole('The order', 0, 100_000),
  inputs: list(
    'The inputs',
    object({
      wire: wireUniverse,
      sender: text('The sender', 120).defined('The sender is missing.'),
      shift: whole('The shift', -(SLOTS - 1), SLOTS - 1),
      priority,
    }).noUnknown(),
    MOST_INPUTS,
  ).min(1, 'A route has at least one input.'),
  merge: oneOf('The merge', ROUTE_MERGES),
  returns: oneOf('The return', ['at once', 'by hand']),
  out: wireUniverse,
  interface: ipv4.defined('The interface is missing.'),
  delivery: oneOf('The delivery', DELIVERIES),
  addresses: list('The addresses', ipv4.required('An address is empty.'), 256).when('delivery', ([way], schema) =>
    way === 'unicast' ? schema.min(1, 'Say to which addresses unicast goes.') : schema,
  ),
  priority,
  master: whole('The master', 0, 255),
  parts: list('The parts', part, MOST_PARTS),
  comesBack: flag('Coming back'),
});

export const control = object({
  ...row,
  name: name('The control’s name'),
  wire: wireUniverse,
  channel,
  does: oneOf('What it does', ['master', 'switch']).test(
    'switchable',
    'Only a route is switched on and off.',
    (does, { parent }) => does === 'master' || (parent as { target?: { kind?: string } }).target?.kind === 'route',
  ),
  target: lazy((value: unknown) => {
    const kind = oneOf('The target', ['route', 'universe', 'group']);
    const what = (value as { kind?: string } | null)?.kind;
    if (what === 'universe') return object({ kind, number: showUniverse }).noUnknown();
    if (what === 'group') return object({ kind, name: name('The group') }).noUnknown();
    return object({ kind, id: text('The route', 80).required('The route is missing.') }).noUnknown();
  }),
  threshold: whole('The threshold', 1, 255),
});

const base = number().strict().oneOf([0, 1], 'Numbering begins at 0 or at 1.').required('The numbering is missing.');

export const link = object({
  ...row,
  name: name('The link’s name'),
  sourceId: text('The sender', 80).required('The sender is missing.'),
  machineId: text('The visualiser', 80).required('The visualiser is missing.'),
  protocol,
  senderBase: base,
  receiverBase: base,
  lines: list(
    'The lines',
    object({
      from: showUniverse,
      count: whole('How many universes', 1, 4096),
      to: whole('The visualiser’s universe', 0, 63_999),
    }).noUnknown(),
    512,
  ),
  startsFirst: oneOf('What starts first', START_ORDERS),
  well: list('The answers', string().strict().max(80).required(), 40),
});
