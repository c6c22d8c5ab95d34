/** A channel of another desk that drives something here. */
import { channel, showUniverse, wireUniverse } from './common';
import { choice, must, name, oneOf, reference, whole, type ValueOf, when } from '../../base/field';
import { kindOf, type RecordFrom } from './kind';

/** What an incoming channel moves: a route, all routes into a universe, or the intensity of a group's lamps in them. */
const target = choice('Target', {
  route: { id: reference('Route') },
  universe: { number: showUniverse() },
  group: { name: name('Group') },
});
export type ControlTarget = ValueOf<typeof target>;

export const control = kindOf(
  { one: 'control', many: 'controls', table: 'control', schemaName: 'Control' },
  {
    name: name('Name', { what: 'The control’s name' }),
    wire: wireUniverse,
    channel: channel(),
    does: must(
      oneOf('What it does', ['master', 'switch'], {
        what: 'What it does',
        about: 'It scales its target, or switches a route on and off.',
      }),
      'switchable',
      'Only a route is switched on and off.',
      (does, { target: to }) => does === 'master' || (to as { kind?: string } | undefined)?.kind === 'route',
      when({ does: { const: 'switch' } }, () => ({ target: { properties: { kind: { const: 'route' } } } })),
    ),
    target,
    threshold: whole('Threshold', 1, 255, { about: 'A switch is on from this level up.' }),
  },
);

export interface Control extends RecordFrom<typeof control> {}
