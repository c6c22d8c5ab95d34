/** A lamp's attributes as levels to be sent. */
import { formatAddress } from '@taxiarch/core/address';
import { channelMaximum, splitValue, type FixtureChannel } from '@taxiarch/core/fixture';
import type { PatchedLamp } from '@taxiarch/core/patch';

/** Value of each channel, by its place in the mode, in the channel's own resolution. */
export type ChannelValues = readonly number[];

export const defaultsOf = ({ mode }: PatchedLamp): ChannelValues => mode.channels.map((channel) => channel.default);

/** Highlight: lit, open and white, where the type says how. */
export const highlightOf = ({ mode }: PatchedLamp): ChannelValues => mode.channels.map((channel) => channel.highlight);

/** Slot levels of one channel, from 1 within the universe. */
export const levelsOf = (
  { lamp }: PatchedLamp,
  channel: FixtureChannel,
  value: number,
): (readonly [number, number])[] =>
  splitValue(channel, value).map((byte, i) => [lamp.channel + channel.offsets[i]! - 1, byte] as const);

/** All slots of a lamp as a take wants them: address to level. */
export function asTake(patched: PatchedLamp, values: ChannelValues): Record<string, number> {
  const { lamp, mode } = patched;
  const slots: Record<string, number> = {};
  mode.channels.forEach((channel, i) => {
    for (const [slot, level] of levelsOf(patched, channel, values[i]!))
      slots[formatAddress({ universe: lamp.universe, channel: slot })] = level;
  });
  return slots;
}

/** The run of all a lamp's slots, for giving back. */
export const runOf = ({ lamp, footprint }: PatchedLamp): string =>
  `${lamp.universe}/${lamp.channel}-${Math.min(512, lamp.channel + footprint - 1)}`;

/** How a value reads beside its slider: “50 %”. */
export const asPercent = (channel: FixtureChannel, value: number): string =>
  `${Math.round((value / channelMaximum(channel)) * 100)} %`;
