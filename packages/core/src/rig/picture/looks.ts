/** How one lamp looks: lit, in a colour, turned to a side, one channel alone. */
import { attributeLabel, channelMaximum } from '../fixture';
import type { PatchedLamp } from '../patch';
import type { FixtureChannel, WalkPicture } from '../../show/records';
import { defaultsOf, highlightOf, type ChannelValues } from '../level';

export interface Look {
  /** “Red”, “Pan to one side”: what is to be seen */
  readonly says: string;
  readonly values: ChannelValues;
}

const isColour = ({ attribute }: FixtureChannel): boolean => /^Color(Add|Sub|RGB)_/.test(attribute);
const isAdded = ({ attribute }: FixtureChannel): boolean => /^Color(Add|RGB)_/.test(attribute);
const isMove = ({ attribute }: FixtureChannel): boolean => attribute === 'Pan' || attribute === 'Tilt';
const isLight = ({ attribute }: FixtureChannel): boolean => attribute === 'Dimmer' || /^Shutter/.test(attribute);

/** Values with some of the channels at another. */
const but = (
  patched: PatchedLamp,
  base: ChannelValues,
  over: (channel: FixtureChannel, i: number) => number | undefined,
): ChannelValues => patched.mode.channels.map((channel, i) => over(channel, i) ?? base[i]!);

export const hasColour = ({ mode }: PatchedLamp): boolean => mode.channels.some(isColour);
export const moves = ({ mode }: PatchedLamp): boolean => mode.channels.some(isMove);
export const cellsOf = ({ mode }: PatchedLamp): number =>
  mode.channels.reduce((most, { cell = 0 }) => Math.max(most, cell), 0);

/** Lit, and of one colour: emitters named by it alone, or filters named by it alone. */
export function coloured(patched: PatchedLamp, attributes: ReadonlySet<string>): ChannelValues {
  return but(patched, highlightOf(patched), (channel) => {
    if (!isColour(channel)) return undefined;
    return attributes.has(channel.attribute) ? channelMaximum(channel) : 0;
  });
}

/** Part of the whole way by which heads are turned out. */
const OUT = 0.25;

function turned(patched: PatchedLamp, pan: number, tilt: number): ChannelValues {
  return but(patched, highlightOf(patched), (channel) => {
    if (!isMove(channel)) return undefined;
    const by = channel.attribute === 'Pan' ? pan : tilt;
    return Math.round(channelMaximum(channel) * (0.5 + by * OUT));
  });
}

/** Corners of a square, in the order in which they are gone to. */
const CORNERS: readonly (readonly [pan: number, tilt: number, says: string])[] = [
  [-1, -1, 'First corner'],
  [1, -1, 'Second corner'],
  [1, 1, 'Third corner'],
  [-1, 1, 'Fourth corner'],
];
export const square = (patched: PatchedLamp): Look[] =>
  CORNERS.map(([pan, tilt, says]) => ({ says, values: turned(patched, pan, tilt) }));

/** One channel lifted alone; with as much light as it takes to see what it does. */
export function lifted(patched: PatchedLamp, which: number): ChannelValues {
  const channel = patched.mode.channels[which]!;
  const shines = isLight(channel) || isAdded(channel);
  return but(patched, shines ? defaultsOf(patched) : highlightOf(patched), (one, i) => {
    if (i === which) return channelMaximum(one);
    const together = one.cell === undefined || channel.cell === undefined || one.cell === channel.cell;
    const needed = isLight(one) || (isLight(channel) && isAdded(one));
    return shines && together && needed ? one.highlight : undefined;
  });
}

function lightCell(patched: PatchedLamp, cell: number): ChannelValues {
  const lit = highlightOf(patched);
  return but(patched, lit, (channel) =>
    channel.cell === undefined || channel.cell === cell ? undefined : channel.default,
  );
}

const FULL = (patched: PatchedLamp): Look[] => [{ says: 'Full', values: highlightOf(patched) }];

const LOOKS: Readonly<Record<WalkPicture, (patched: PatchedLamp) => Look[]>> = {
  full: FULL,
  colours: (patched) => [
    ...[...new Set(patched.mode.channels.filter(isColour).map(({ attribute }) => attribute))].map((attribute) => ({
      says: attributeLabel(attribute),
      values: coloured(patched, new Set([attribute])),
    })),
    ...(hasColour(patched) ? FULL(patched) : []),
  ],
  'pan and tilt': (patched) =>
    moves(patched)
      ? [
          ...(patched.mode.channels.some(({ attribute }) => attribute === 'Pan')
            ? [
                { says: 'Pan to one side', values: turned(patched, -1, 0) },
                { says: 'Pan to the other', values: turned(patched, 1, 0) },
              ]
            : []),
          ...(patched.mode.channels.some(({ attribute }) => attribute === 'Tilt')
            ? [
                { says: 'Tilt to one side', values: turned(patched, 0, -1) },
                { says: 'Tilt to the other', values: turned(patched, 0, 1) },
              ]
            : []),
          { says: 'Back to the middle', values: turned(patched, 0, 0) },
        ]
      : [],
  channels: (patched) =>
    patched.mode.channels.map((channel, i) => ({
      says: `${attributeLabel(channel.attribute)}${channel.cell === undefined ? '' : ` ${channel.cell}`} alone`,
      values: lifted(patched, i),
    })),
  cells: (patched) =>
    Array.from({ length: cellsOf(patched) }, (_, i) => ({
      says: `${patched.run ? 'Pixel' : 'Cell'} ${i + 1}`,
      values: lightCell(patched, i + 1),
    })),
};

/** What a lamp shows by a list of pictures; what it has nothing for is left out, and one that has nothing is lit. */
export function looksOf(patched: PatchedLamp, pictures: readonly WalkPicture[]): Look[] {
  const looks = pictures.flatMap((picture) => LOOKS[picture](patched));
  return looks.length > 0 ? looks : FULL(patched);
}
