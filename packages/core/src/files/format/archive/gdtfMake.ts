/** Fixture types of our own as GDTF 1.2 describes them (DIN SPEC 15800). */
import { attributeLabel, channelMaximum } from '../../../rig/fixture';
import type { FixtureChannel, FixtureMode, FixtureType } from '../../../show/records';
import { bodyOf, type Placed } from './gdtfGeometry';
import { writeColour, writeDmxValue } from './gdtfValue';
import { ASSUMED, attributeSheet, EMITTERS, FILTERS, isWheel } from './gdtfWords';
import { guidOf } from '../../arrival';
import { XmlElement } from './xml';

/** Named values that are no place on a wheel */
const MOVES = /turn|spin|scroll|shake|rotat|random/i;

/** Slots of a wheel, by the attribute that chooses them: each name once, in the order of the values. */
function wheelSlots({ modes }: FixtureType): ReadonlyMap<string, { name: string; colour: string | undefined }[]> {
  const wheels = new Map<string, { name: string; colour: string | undefined }[]>();
  for (const { attribute, ranges = [] } of modes.flatMap(({ channels }) => channels)) {
    if (!isWheel(attribute)) continue;
    const slots = wheels.get(attribute) ?? [];
    for (const { name, colour } of ranges)
      // What has no colour of its own on a wheel of colours, or moves, is no slot.
      if (
        (colour !== undefined || (attribute.startsWith('Gobo') && !MOVES.test(name))) &&
        !slots.some((one) => one.name === name)
      )
        slots.push({ name, colour });
    if (slots.length > 0) wheels.set(attribute, slots);
  }
  return wheels;
}

const wheelName = (attribute: string): string =>
  `${attributeLabel(attribute)} ${/\d+$/.exec(attribute)?.[0] ?? ''}`.trim();

interface Parts {
  readonly type: FixtureType;
  readonly wheels: ReturnType<typeof wheelSlots>;
  /** Whether the description holds the emitters and filters of our own */
  readonly lights: boolean;
}

/** In the description of somebody else, whose wheels and lights are not ours to name. */
const guest = (type: FixtureType): Parts => ({ type, wheels: new Map(), lights: false });

/** Channel sets for named values; what lies between two of them becomes a set without a name. */
export function setsOf(channel: FixtureChannel, slots: readonly { name: string }[] = []): XmlElement[] {
  const bytes = channel.offsets.length;
  const sets: XmlElement[] = [];
  let next = 0;
  const set = (name: string, from: number) => {
    const slot = slots.findIndex((one) => one.name === name) + 1;
    sets.push(
      new XmlElement('ChannelSet', {
        Name: name,
        DMXFrom: writeDmxValue(from, bytes),
        ...(slot > 0 && { WheelSlotIndex: String(slot) }),
      }),
    );
  };
  for (const { name, from, to } of [...(channel.ranges ?? [])].sort((a, b) => a.from - b.from)) {
    if (from > next) set('', next);
    set(name, from);
    next = to + 1;
  }
  if (next > 0 && next <= channelMaximum(channel)) set('', next);
  return sets;
}

function channelElement({ channel, geometry }: Placed, { type, wheels, lights }: Parts): XmlElement {
  const bytes = channel.offsets.length;
  const { attribute, block = 1 } = channel;
  const { range, assumed } = attributeSheet(attribute, type);
  const functionName = `${attribute} 1${assumed ? ASSUMED : ''}`;
  const slots = wheels.get(attribute);
  const made = new XmlElement(
    'ChannelFunction',
    {
      Name: functionName,
      Attribute: attribute,
      DMXFrom: '0/1',
      Default: writeDmxValue(channel.default, bytes),
      PhysicalFrom: String(range[0]),
      PhysicalTo: String(range[1]),
      ...(slots && { Wheel: wheelName(attribute) }),
      ...(lights && EMITTERS[attribute] && { Emitter: EMITTERS[attribute].name }),
      ...(lights && FILTERS[attribute] && { Filter: FILTERS[attribute].name }),
    },
    setsOf(channel, slots),
  );
  return new XmlElement(
    'DMXChannel',
    {
      DMXBreak: String(block),
      Offset: channel.offsets.join(','),
      Highlight: writeDmxValue(channel.highlight, bytes),
      Geometry: geometry,
      InitialFunction: `${geometry}_${attribute}.${attribute}.${functionName}`,
    },
    [new XmlElement('LogicalChannel', { Attribute: attribute }, [made])],
  );
}

const modeElement = (mode: FixtureMode, root: string, channels: readonly Placed[], parts: Parts): XmlElement =>
  new XmlElement('DMXMode', { Name: mode.name, Geometry: root }, [
    new XmlElement(
      'DMXChannels',
      {},
      channels.map((one) => channelElement(one, parts)),
    ),
    new XmlElement('Relations'),
    new XmlElement('FTMacros'),
  ]);

const attributesOf = ({ modes }: FixtureType): string[] => [
  ...new Set(modes.flatMap(({ channels }) => channels.map(({ attribute }) => attribute))),
];

/** Adds what the attributes need and the definitions lack. */
export function defineAttributes(definitions: XmlElement, names: readonly string[], type: FixtureType): void {
  const known = new Set(definitions.child('Attributes')?.children.map((one) => one.at('Name')));
  if (names.every((name) => known.has(name))) return;
  const [activations, groups, attributes] = ['ActivationGroups', 'FeatureGroups', 'Attributes'].map((name) =>
    definitions.made(name),
  ) as [XmlElement, XmlElement, XmlElement];
  const named = (holder: XmlElement, tag: string, name: string): XmlElement => {
    const there = holder.children.find((one) => one.at('Name') === name);
    if (there) return there;
    const made = new XmlElement(tag, { Name: name });
    holder.children.push(made);
    return made;
  };
  for (const name of names) {
    if (known.has(name)) continue;
    const { feature, unit, activation } = attributeSheet(name, type);
    const [group, within] = feature.split('.') as [string, string];
    const holder = named(groups, 'FeatureGroup', group);
    holder.attributes['Pretty'] ??= group;
    named(holder, 'Feature', within);
    if (activation !== undefined) named(activations, 'ActivationGroup', activation);
    attributes.children.push(
      new XmlElement('Attribute', {
        Name: name,
        Pretty: attributeLabel(name),
        ...(activation !== undefined && { ActivationGroup: activation }),
        Feature: feature,
        PhysicalUnit: unit,
        ...(EMITTERS[name] && { Color: writeColour(EMITTERS[name].colour) }),
      }),
    );
  }
}

/** Modes of our own with their bodies; those of several modes are kept apart by what their names end in. */
function modesWith(
  parts: Parts,
  modes: readonly FixtureMode[],
  suffixOf: (i: number) => string,
): { modes: XmlElement[]; geometries: XmlElement[] } {
  const { type } = parts;
  const bodies = modes.map((mode, i) => bodyOf(type, mode, suffixOf(i)));
  return {
    modes: modes.map((mode, i) => modeElement(mode, bodies[i]!.root, bodies[i]!.channels, parts)),
    geometries: bodies.flatMap(({ elements }) => elements),
  };
}

/** Modes and channels that are added to a description of somebody else. */
export const guestModes = (type: FixtureType, modes: readonly FixtureMode[], suffixOf: (i: number) => string) =>
  modesWith(guest(type), modes, suffixOf);
export const guestChannel = (type: FixtureType, placed: Placed): XmlElement => channelElement(placed, guest(type));

/** `at` (ISO 8601) is the time of its revision. */
export function newDescription(type: FixtureType, at: string): XmlElement {
  const attributes = {
    Name: type.name,
    ShortName: type.name,
    LongName: `${type.maker} ${type.name}`,
    Manufacturer: type.maker,
    Description: `kind: ${type.kind}`,
    FixtureTypeID: guidOf(type.id).toUpperCase(),
    Thumbnail: '',
    RefFT: '',
    CanHaveChildren: 'No',
  };
  const names = attributesOf(type);
  const definitions = new XmlElement('AttributeDefinitions');
  defineAttributes(definitions, names, type);
  const wheels = [...wheelSlots(type)].map(
    ([attribute, slots]) =>
      new XmlElement(
        'Wheel',
        { Name: wheelName(attribute) },
        slots.map(
          ({ name, colour }) =>
            new XmlElement('Slot', { Name: name, ...(colour !== undefined && { Color: writeColour(colour) }) }),
        ),
      ),
  );
  const lights = (sheets: typeof EMITTERS, tag: string) =>
    names
      .flatMap((name) => sheets[name] ?? [])
      .map(
        ({ name, colour, wave }) =>
          new XmlElement(tag, {
            Name: name,
            Color: writeColour(colour),
            ...(wave !== undefined && { DominantWaveLength: wave.toFixed(1) }),
          }),
      );
  const { modes, geometries } = modesWith({ type, wheels: wheelSlots(type), lights: true }, type.modes, (i) =>
    i === 0 ? '' : ` ${i + 1}`,
  );
  const revision = { Text: 'As it stands in the show', Date: at, UserID: '0', ModifiedBy: 'Taxiarch' };
  return new XmlElement('GDTF', { DataVersion: '1.2' }, [
    new XmlElement('FixtureType', attributes, [
      definitions,
      new XmlElement('Wheels', {}, wheels),
      new XmlElement('PhysicalDescriptions', {}, [
        new XmlElement('Emitters', {}, lights(EMITTERS, 'Emitter')),
        new XmlElement('Filters', {}, lights(FILTERS, 'Filter')),
      ]),
      new XmlElement('Models'),
      new XmlElement('Geometries', {}, geometries),
      new XmlElement('DMXModes', {}, modes),
      new XmlElement('Revisions', {}, [new XmlElement('Revision', revision)]),
      new XmlElement('FTPresets'),
      new XmlElement('Protocols'),
    ]),
  ]);
}
