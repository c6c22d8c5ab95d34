/** What a fixture of a type says of itself when it is asked: its modes as personalities, slot by slot. */
import { joinValue, layoutOf, splitValue } from '../../rig/fixture';
import {
  SLOT_PRIMARY,
  SLOT_SECONDARY_FINE,
  SLOT_UNDEFINED,
  slotIdOf,
  type ParameterDescription,
  type ResponderPersonality,
  type ResponderSheet,
  type ResponderSlot,
  type SensorDefinition,
  type Uid,
} from '../../protocol/rdm';
import { attributeLabel } from '../../rig/fixture';
import type { FixtureMode, FixtureType } from '../../show/records';

/** Product categories (ANSI E1.20, table A-5) that our kinds are */
const CATEGORIES: Readonly<Record<string, number>> = { dimmer: 0x0501, spot: 0x0102, wash: 0x0102, hazer: 0x0301 };
const FIXED = 0x0101;

function personalityOf(mode: FixtureMode): ResponderPersonality {
  const layout = layoutOf(mode, 1);
  const slots = layout.map((entry, slot): ResponderSlot => {
    if (!entry) return { slot, type: SLOT_PRIMARY, label: SLOT_UNDEFINED, name: 'Unused', default: 0 };
    const [channel, byte] = entry;
    const fine = byte > 0;
    return {
      slot,
      type: fine ? SLOT_SECONDARY_FINE : SLOT_PRIMARY,
      label: fine ? channel.offsets[0]! - 1 : slotIdOf(channel.attribute),
      name: `${attributeLabel(channel.attribute)}${channel.cell === undefined ? '' : ` ${channel.cell}`}${fine ? ' fine' : ''}`,
      default: splitValue(channel, channel.default)[byte]!,
    };
  });
  return { name: mode.name, slots };
}

const TEMPERATURE: SensorDefinition = {
  sensor: 0,
  type: 0x00,
  unit: 0x01,
  prefix: 0,
  range: [-20, 120],
  normal: [0, 75],
  keeps: 0,
  name: 'Light engine',
};
const FAN: ParameterDescription = {
  pid: 0x8010,
  size: 1,
  type: 0x03,
  commands: 3,
  unit: 0x00,
  prefix: 0,
  least: 0,
  most: 3,
  first: 1,
  name: 'Fan speed',
};

/** Whole number of a text, the same at every call. */
const numberOf = (text: string): number =>
  [...text].reduce((sum, letter) => (sum * 31 + letter.charCodeAt(0)) & 0x7fff, 7);

export const sheetOf = (type: FixtureType, uid: Uid): ResponderSheet => ({
  uid,
  model: numberOf(type.id),
  category: CATEGORIES[type.kind] ?? FIXED,
  software: 0x0102_0003,
  softwareName: '1.2.3',
  maker: type.maker,
  modelName: type.name,
  personalities: type.modes.map(personalityOf),
  sensors: [TEMPERATURE],
  own: [FAN],
});

const AXES: ReadonlySet<string> = new Set(['Pan', 'Tilt']);

/** A type whose pan and tilt take one slot each, and all behind them moves up: one that was built without the fine ones. */
export const withoutFine = (type: FixtureType): FixtureType => ({
  ...type,
  modes: type.modes.map((mode) => {
    const gone = mode.channels.flatMap(({ attribute, offsets }) => (AXES.has(attribute) ? offsets.slice(1) : []));
    return {
      ...mode,
      channels: mode.channels.map((channel) => {
        const axis = AXES.has(channel.attribute);
        const offsets = axis ? channel.offsets.slice(0, 1) : channel.offsets;
        return {
          ...channel,
          offsets: offsets.map((offset) => offset - gone.filter((one) => one < offset).length),
          default:
            axis && channel.offsets.length > 1
              ? joinValue(splitValue(channel, channel.default).slice(0, 1))
              : channel.default,
          highlight: axis ? Math.min(255, channel.highlight) : channel.highlight,
        };
      }),
    };
  }),
});
