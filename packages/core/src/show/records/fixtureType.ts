/** Fixture types: what a lamp's slots mean. */
import { SLOTS } from '../../base/address';
import {
  atLeastOne,
  begun,
  flag,
  initialOf,
  list,
  measure,
  name,
  oneOf,
  optional,
  pattern,
  shape,
  text,
  whole,
  type Field,
} from '../../base/field';
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

/** Whether fixtures of a type answer when they are asked by RDM. */
export const ANSWERS = ['not known', 'yes', 'no'] as const;

/** How many slots one attribute takes, coarse first. */
export type Resolution = 8 | 16 | 24 | 32;

/** A named stretch of a channel's values, both ends included, in the channel's own resolution. */
export interface ValueRange {
  readonly name: string;
  readonly from: number;
  readonly to: number;
  /** Of what it puts into the light, as `#rrggbb`; left out where it has none */
  readonly colour?: string | undefined;
}

export interface FixtureChannel {
  /** GDTF attribute name */
  readonly attribute: string;
  /** Places within its address block, from 1, coarse byte first; their count gives the resolution. */
  readonly offsets: readonly number[];
  /** In the channel's own resolution: 0–255, 0–65535, 0–16777215 or 0–4294967295 */
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

const HIGHEST = 0xffffffff;
/** Channels of one mode, in all its blocks */
const MOST_CHANNELS = 8192;

const rangeFields = {
  name: text('Name', 120, { what: 'The range’s name' }),
  from: whole('From', 0, HIGHEST, { what: 'A range’s begin' }),
  to: whole('To', 0, HIGHEST, { what: 'A range’s end' }),
  colour: optional(pattern('Colour', 7, /^#[0-9a-f]{6}$/, 'A colour is written as #2e8b57.')),
};
const range = shape<typeof rangeFields, ValueRange>('Range', rangeFields);

const degrees = (label: string, most: number, about: string) =>
  begun(
    measure(label, 0, most, {
      type: 'a number of degrees',
      below: 'cannot be less than nothing.',
      above: `is ${most}° at most.`,
      unit: '°',
      about,
    }),
    0,
  );

const channelFields: { readonly [K in keyof Required<FixtureChannel>]: Field<FixtureChannel[K]> } = {
  attribute: name('Attribute', { about: 'GDTF attribute name.' }),
  offsets: atLeastOne(
    list('Slots', whole('Slot', 1, SLOTS, { what: 'An offset' }), 4, {
      what: 'The offsets',
      about: 'Places within its address block, coarse first.',
    }),
    'A channel takes at least one slot.',
  ),
  default: whole('Default', 0, HIGHEST),
  highlight: whole('Highlight', 0, HIGHEST),
  cell: optional(whole('Cell', 1, 100_000)),
  block: optional(whole('Address block', 1, 64)),
  ranges: optional(list('Named values', range, 4096, { what: 'The ranges of a channel' })),
};

const mode = shape('Mode', {
  name: name('Name', { what: 'The mode’s name' }),
  channels: list('Channels', shape<typeof channelFields, FixtureChannel>('Channel', channelFields), MOST_CHANNELS, {
    what: 'The channels',
  }),
});

export const type = kindOf(
  { one: 'fixture type', many: 'fixture types', table: 'fixture_type', schemaName: 'FixtureType' },
  {
    maker: name('Maker'),
    name: name('Name', { what: 'The type’s name' }),
    kind: oneOf('Kind', FIXTURE_KINDS),
    answers: begun(
      oneOf('Answers RDM', ANSWERS, { about: 'Whether its fixtures answer when they are asked over their DMX cable.' }),
      'not known',
    ),
    unknown: begun(
      flag('Not known', {
        about: 'Only its name is known, from a file that lacked the type itself; its lamps wait to be given a type.',
      }),
      false,
    ),
    pan: degrees('Pan', 3600, 'How far it turns altogether; 0 while nobody has said.'),
    tilt: degrees('Tilt', 3600, 'How far it tilts altogether; 0 while nobody has said.'),
    beam: degrees('Beam angle', 180, 'Where its light has half of its brightness; the narrowest, if it can zoom.'),
    field: degrees('Field angle', 180, 'Where its light has a tenth of its brightness; the widest, if it can zoom.'),
    /** The file (GDTF) that it was taken from; null if it was made here. */
    file: keptFile,
    modes: atLeastOne(list<FixtureMode>('Modes', mode, 1000, { what: 'The modes' }), 'A type has at least one mode.'),
  },
);

export interface FixtureType extends RecordFrom<typeof type> {}

/** What a type is before anybody says more of it. */
export const PLAIN_TYPE = initialOf(type.fields);
