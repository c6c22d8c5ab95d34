/** A lamp's attributes as levels to be sent, and how one lamp is taken after another without going dark. */
import { formatAddress, SLOTS, type SlotAddress } from '../../base/address';
import { channelMaximum, joinValue, splitValue } from '../fixture';
import { lastChannel, slotsOf, type PatchedLamp } from '../patch';
import type { FixtureChannel } from '../../show/records';

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

/** All slots of a lamp as a take wants them: address to level, null for as it is received now. */
export function asTake(patched: PatchedLamp, values: ChannelValues | null): Record<string, number | null> {
  const slots: Record<string, number | null> = {};
  patched.mode.channels.forEach((channel, i) => {
    for (const [at, level] of levelsOf(patched, channel, values?.[i] ?? 0))
      slots[formatAddress(at)] = values === null ? null : level;
  });
  return slots;
}

/** The runs of all a lamp's slots, for giving back. */
export const runsOf = ({ spans }: PatchedLamp): string[] =>
  spans.map((span) => `${span.universe}/${span.channel}-${Math.min(SLOTS, lastChannel(span))}`);

/** What a lamp receives; a channel of which not every slot is heard has its default. */
export const receivedBy = (patched: PatchedLamp, levelAt: (at: SlotAddress) => number | undefined): ChannelValues =>
  patched.mode.channels.map((channel) => {
    const bytes = slotsOf(patched, channel).map(levelAt);
    return bytes.includes(undefined) ? channel.default : joinValue(bytes as number[]);
  });

const isDimmer = ({ attribute }: FixtureChannel): boolean => attribute === 'Dimmer';
const isShutter = ({ attribute }: FixtureChannel): boolean => /^Shutter\d/.test(attribute);
const isEmitter = ({ attribute }: FixtureChannel): boolean => attribute.startsWith('ColorAdd_');
const isFilter = ({ attribute }: FixtureChannel): boolean => attribute.startsWith('ColorSub_');

/** How bright a lamp is set, 0–1: its intensity; without one, whether any of its colours is up. */
export function intensityOf({ mode }: PatchedLamp, values: ChannelValues): number {
  const dimmers = mode.channels.flatMap((channel, i) =>
    isDimmer(channel) ? [values[i]! / channelMaximum(channel)] : [],
  );
  if (dimmers.length > 0) return Math.max(...dimmers);
  const colours = mode.channels.flatMap((channel, i) =>
    isEmitter(channel) ? [values[i]! / channelMaximum(channel)] : [],
  );
  return Math.max(0, ...colours);
}

/** Filters that let nothing through, or emitters that are all out, are as good as no light. */
const SHUT = 0.98;

/**
 * What a lamp is set to when a walk comes to it with an intensity: what it receives, at that intensity, with
 * its shutter open and with colours that let light through, so that it is seen. At 0 it stays as it is.
 */
export function carriedTo(patched: PatchedLamp, received: ChannelValues, intensity: number): ChannelValues {
  if (intensity <= 0) return received;
  const { channels } = patched.mode;
  const share = (i: number) => received[i]! / channelMaximum(channels[i]!);
  const dark = new Set<number | undefined>();
  for (const cell of new Set(channels.map((channel) => channel.cell))) {
    const its = channels.flatMap((channel, i) => (channel.cell === cell ? [i] : []));
    const emitters = its.filter((i) => isEmitter(channels[i]!));
    const filters = its.filter((i) => isFilter(channels[i]!));
    if (emitters.length > 0 && emitters.every((i) => share(i) === 0)) dark.add(cell);
    if (filters.length > 0 && filters.every((i) => share(i) >= SHUT)) dark.add(cell);
  }
  const dims = channels.some(isDimmer);
  return channels.map((channel, i) => {
    if (isDimmer(channel)) return Math.round(intensity * channelMaximum(channel));
    if (isShutter(channel)) return channel.highlight;
    if (dark.has(channel.cell) && (isEmitter(channel) || isFilter(channel)))
      // Without a dimmer of its own the colours carry the intensity.
      return isEmitter(channel) && !dims ? Math.round(intensity * channel.highlight) : channel.highlight;
    return received[i]!;
  });
}

/** How a value reads beside its slider: “50 %”. */
export const asPercent = (channel: FixtureChannel, value: number): string =>
  `${Math.round((value / channelMaximum(channel)) * 100)} %`;
