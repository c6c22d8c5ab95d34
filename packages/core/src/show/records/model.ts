/** What a model of machine can do. */
import { PROTOCOLS } from './common';
import { begun, flag, list, name, nullable, oneOf, text, whole, type Field } from '../../base/field';
import { kindOf, type RecordFrom } from './kind';
import { MACHINE_KINDS } from './machineKinds';
import { LOSS_KINDS, PORT_MERGES, START_UPS } from './port';

/** Of a machine whose model nobody knows, or that was planned before models said it. */
export const PLAIN_SPEED = 100;

const some = <const W extends string>(label: string, what: string, of: readonly W[]): Field<readonly W[]> =>
  list(label, oneOf(label, of, { what }), 20, { what });

const limit = (label: string, most: number, what: string, about: string) =>
  nullable(whole(label, 1, most, { what, about }));

export const model = kindOf(
  { one: 'model', many: 'models', table: 'model', schemaName: 'Model' },
  {
    maker: name('Maker'),
    name: name('Name', { what: 'The model’s name' }),
    kind: oneOf('Kind', MACHINE_KINDS),
    ports: whole('DMX ports', 0, 64, { what: 'The number of ports' }),
    connector: text('Connector', 60),
    directions: some('Directions', 'The directions', ['out', 'in']),
    protocols: some('Protocols', 'The protocols', PROTOCOLS),
    merges: some('Merges', 'The merges', PORT_MERGES),
    losses: some('When signal is lost', 'What it can do when signal is lost', LOSS_KINDS),
    starts: some('At the start', 'What it can do at the start', START_UPS),
    rdm: flag('RDM', { what: 'RDM' }),
    fixedValue: flag('Fixed values', { what: 'Fixed values' }),
    copies: flag('Copies of ports', { what: 'Copying of ports' }),
    rate: whole('Most frames of a port', 1, 44, { what: 'The rate', unit: 'Hz' }),
    universes: limit('Most universes', 63_999, 'The most universes', 'Null if it has no such limit.'),
    sources: whole('Most sources of a merge', 1, 64, {
      what: 'The most sources of a merge',
      about: '1 for one that cannot merge.',
    }),
    priorityFirst: begun(
      flag('Higher priority gets in', {
        what: 'Whether a higher priority gets in',
        about: 'sACN: though all places of its merge are taken, a source of higher priority gets one.',
      }),
      true,
    ),
    parameters: limit(
      'Most parameters sent',
      10_000_000,
      'The allowance of parameters',
      'Parameters that it is allowed to send; null if it has no such limit.',
    ),
    base: oneOf('First Art-Net universe', [0, 1], {
      sentence: 'A device counts from 0 or from 1.',
      about: 'What its display calls Art-Net’s first universe.',
    }),
    remote: flag('Set by Art-Net', { what: 'Setting by Art-Net', about: 'Its settings can be changed by ArtAddress.' }),
    ipProg: flag('Address set by Art-Net', { what: 'Setting of its address', about: 'By ArtIpProg.' }),
    perPage: oneOf('Ports of a page', [1, 4], {
      sentence: 'A page holds one port or four.',
      about: 'Ports of a poll reply’s page; they share net and sub-net.',
    }),
    groups: limit(
      'Multicast groups',
      100_000,
      'The multicast groups',
      'Groups that a switch follows; null for what is no switch or has no limit.',
    ),
    speed: begun(
      whole('Speed of its connector', 1, 1_000_000, { what: 'The speed of its connector', unit: 'Mbit/s' }),
      PLAIN_SPEED,
    ),
  },
);

export interface Model extends RecordFrom<typeof model> {}
