/** Fixture types: what a lamp's slots mean. */
import { SLOTS } from '../address';
import { atLeastOne, list, name, oneOf, optional, shape, text, whole, type Field } from '../field';
import { keptFile } from './common';
import { kindOf, type RecordFrom } from './kind';

/** What a type is, for finding it and for its symbol on the plan. */
export const FIXTURE_KINDS = [
  'dimmer',
  'relay',
  'par',
  'spot',
  'wash',
  'batten',
  'panel',
  'strobe',
  'hazer',
  'fan',
  'bubbles',
  'wall',
  'media',
  'strip',
  'other',
] as const;
export type FixtureKind = (typeof FIXTURE_KINDS)[number];

/** How many slots one attribute takes, coarse first. */
export type Resolution = 8 | 16 | 24;

/** A named stretch of a channel's values, both ends included, in the channel's own resolution. */
export interface ValueRange {
  readonly name: string;
  readonly from: number;
  readonly to: number;
}

export interface FixtureChannel {
  /** GDTF attribute name */
  readonly attribute: string;
  /** Places within its address block, from 1, coarse byte first; their count gives the resolution. */
  readonly offsets: readonly number[];
  /** In the channel's own resolution: 0–255, 0–65535 or 0–16777215 */
  readonly default: number;
  readonly highlight: number;
  /** For fixtures of many cells: which one, from 1. */
  readonly cell?: number | undefined;
  /** Address block (GDTF: DMX break), from 1; left out for the first. */
  readonly block?: number | undefined;
  readonly ranges?: readonly ValueRange[] | undefined;
}

export interface FixtureMode {
  readonly name: string;
  readonly channels: readonly FixtureChannel[];
}

const HIGHEST = 0xffffff;

const range = shape('Range', {
  name: text('Name', 120, { what: 'The range’s name' }),
  from: whole('From', 0, HIGHEST, { what: 'A range’s begin' }),
  to: whole('To', 0, HIGHEST, { what: 'A range’s end' }),
});

const channelFields: { readonly [K in keyof Required<FixtureChannel>]: Field<FixtureChannel[K]> } = {
  attribute: name('Attribute', { about: 'GDTF attribute name.' }),
  offsets: atLeastOne(
    list('Slots', whole('Slot', 1, SLOTS, { what: 'An offset' }), 3, {
      what: 'The offsets',
      about: 'Places within its address block, coarse first.',
    }),
    'A channel takes at least one slot.',
  ),
  default: whole('Default', 0, HIGHEST),
  highlight: whole('Highlight', 0, HIGHEST),
  cell: optional(whole('Cell', 1, 100_000)),
  block: optional(whole('Address block', 1, 64)),
  ranges: optional(list('Named values', range, 256, { what: 'The ranges of a channel' })),
};

const mode = shape('Mode', {
  name: name('Name', { what: 'The mode’s name' }),
  channels: list('Channels', shape<typeof channelFields, FixtureChannel>('Channel', channelFields), SLOTS, {
    what: 'The channels',
  }),
});

export const type = kindOf(
  { one: 'fixture type', many: 'fixture types', table: 'fixture_type', schemaName: 'FixtureType' },
  {
    maker: name('Maker'),
    name: name('Name', { what: 'The type’s name' }),
    kind: oneOf('Kind', FIXTURE_KINDS),
    /** The file (GDTF) that it was taken from; null if it was made here. */
    file: keptFile,
    modes: atLeastOne(list<FixtureMode>('Modes', mode, 100, { what: 'The modes' }), 'A type has at least one mode.'),
  },
);

export interface FixtureType extends RecordFrom<typeof type> {}
