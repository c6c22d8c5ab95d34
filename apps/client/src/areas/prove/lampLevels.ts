/** A lamp's attributes as levels to be sent. */
import { SLOTS, formatAddress, type SlotAddress } from '@taxiarch/core/address';
import { channelMaximum, splitValue, type FixtureChannel } from '@taxiarch/core/fixture';
import { lastChannel, slotsOf, type PatchedLamp } from '@taxiarch/core/patch';

/** Value of each channel, by its place in the mode, in the channel's own resolution. */
export type ChannelValues = readonly number[];

export const defaultsOf = ({ mode }: PatchedLamp): ChannelValues => mode.channels.map((channel) => channel.default);

/** Highlight: lit, open and white, where the type says how. */
export const highlightOf = ({ mode }: PatchedLamp): ChannelValues => mode.channels.map((channel) => channel.highlight);

/** Levels of one channel's slots, coarse first; slots that lie past a universe's end are left out. */
export const levelsOf = (
  patched: PatchedLamp,
  channel: FixtureChannel,
  value: number,
): (readonly [SlotAddress, number])[] => {
  const bytes = splitValue(channel, value);
  return slotsOf(patched, channel).flatMap((at, i) => (at.channel <= SLOTS ? [[at, bytes[i]!] as const] : []));
};

/** All slots of a lamp as a take wants them: address to level. */
export function asTake(patched: PatchedLamp, values: ChannelValues): Record<string, number> {
  const slots: Record<string, number> = {};
  patched.mode.channels.forEach((channel, i) => {
    for (const [at, level] of levelsOf(patched, channel, values[i]!)) slots[formatAddress(at)] = level;
  });
  return slots;
}

/** The runs of all a lamp's slots, for giving back. */
export const runsOf = ({ spans }: PatchedLamp): string[] =>
  spans.map((span) => `${span.universe}/${span.channel}-${Math.min(SLOTS, lastChannel(span))}`);

/** How a value reads beside its slider: “50 %”. */
export const asPercent = (channel: FixtureChannel, value: number): string =>
  `${Math.round((value / channelMaximum(channel)) * 100)} %`;
