/** What a channel should be seen to do when it is lifted alone, in words. */
import { attributeLabel } from '../../rig/fixture';
import type { PatchedLamp } from '../../rig/patch';
import type { FixtureChannel } from '../../show/records';

/** By the attribute’s name (GDTF), the first that fits */
const SHOULD: readonly (readonly [RegExp, (label: string) => string])[] = [
  [/^Dimmer$/, () => 'It lights.'],
  [/^Shutter\dStrobe|^StrobeDuration/, () => 'It flashes.'],
  [/^Shutter/, () => 'Its shutter opens.'],
  [/^Pan$/, () => 'It turns to one side.'],
  [/^Tilt$/, () => 'It tips to one end.'],
  [/^ColorAdd_/, (label) => `It shines ${label.toLowerCase()}.`],
  [/^ColorSub_/, (label) => `Its light turns ${label.toLowerCase()}.`],
  [/^Color\d|^CTO|^CTB/, (label) => `Its light takes the ${label.toLowerCase()}.`],
  [/^Gobo\dPos/, () => 'Its picture turns.'],
  [/^Gobo/, () => 'A picture comes into its light.'],
  [/^Prism/, () => 'Its light is split.'],
  [/^Frost/, () => 'Its edge goes soft.'],
  [/^Focus/, () => 'Its edge goes sharp or soft.'],
  [/^Zoom/, () => 'Its beam grows wide or narrow.'],
  [/^Iris/, () => 'Its beam closes.'],
  [/^Blade/, (label) => `${label} moves into the beam.`],
  [/^Fog/, () => 'It makes haze.'],
  [/^Fans/, () => 'Its fan runs.'],
  [/^Relay/, () => 'Its relay switches.'],
];

/** “It shines red.”; of many cells, which */
export function shouldDo(channel: FixtureChannel): string {
  const label = attributeLabel(channel.attribute);
  const found = SHOULD.find(([name]) => name.test(channel.attribute))?.[1](label) ?? `${label} goes to its full.`;
  return channel.cell === undefined ? found : `Cell ${channel.cell}: ${found}`;
}

/** “Red”, “Red 3” */
export const channelName = ({ attribute, cell }: FixtureChannel): string =>
  `${attributeLabel(attribute)}${cell === undefined ? '' : ` ${cell}`}`;

/** Slots of a channel within the lamp: “slot 3”, “slots 1 and 2” */
export function slotsText({ offsets }: FixtureChannel): string {
  return offsets.length === 1 ? `slot ${offsets[0]!}` : `slots ${offsets.join(' and ')}`;
}

/** What should be seen of an item. */
export const shouldSee = ({ mode }: PatchedLamp, channel: number): string => {
  const its = mode.channels[channel - 1];
  return its ? shouldDo(its) : '';
};
