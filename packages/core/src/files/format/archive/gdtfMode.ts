/** A mode of a GDTF file (DIN SPEC 15800, DMXMode): its channels, and from which element each came. */
import { fitted } from '../../arrival';
import { blockOf, lightsWith, modeFault } from '../../../rig/fixture';
import { ok, refuse, type Result } from '../../../base/result';
import type { FixtureChannel, FixtureMode, ValueRange } from '../../../show/records';
import { readColour, readDmxValue, readOffsets } from './gdtfValue';
import type { XmlElement } from './xml';

/** What a mode refers to outside itself. */
export interface TypeParts {
  /** Geometries at the top, by name */
  readonly geometries: ReadonlyMap<string, XmlElement>;
  /** Slots of wheels, by the wheel's name */
  readonly wheels: ReadonlyMap<string, readonly XmlElement[]>;
}

export const partsOf = (type: XmlElement): TypeParts => ({
  geometries: new Map((type.child('Geometries')?.children ?? []).map((one) => [one.at('Name'), one])),
  wheels: new Map((type.child('Wheels')?.all('Wheel') ?? []).map((one) => [one.at('Name'), one.all('Slot')])),
});

interface Break {
  readonly block: number;
  readonly offset: number;
}

/** One place at which a geometry stands: the breaks of each reference that leads there, from the outside in. */
type Placement = readonly (readonly Break[])[];

/** No fixture has more cells; what refers to itself would never end. */
const MOST_PLACEMENTS = 20_000;

/** Where each geometry of a mode stands, in the order of the document; refused if references go round or too far. */
function placementsOf(root: XmlElement, { geometries }: TypeParts): Result<ReadonlyMap<string, Placement[]>> {
  const found = new Map<string, Placement[]>();
  let count = 0;
  const look = (geometry: XmlElement, chain: Placement, inside: readonly string[]): string | undefined => {
    count += 1;
    if (count > MOST_PLACEMENTS) return 'Its geometry refers to more parts than any fixture has.';
    const name = geometry.at('Name');
    if (geometry.name !== 'GeometryReference') {
      const there = found.get(name);
      if (there) there.push(chain);
      else found.set(name, [chain]);
      for (const child of geometry.children) {
        const fault = look(child, chain, inside);
        if (fault !== undefined) return fault;
      }
      return undefined;
    }
    const target = geometry.at('Geometry');
    if (inside.includes(target)) return `Its geometry “${target}” refers to itself.`;
    const breaks = geometry.all('Break').map((one) => ({
      block: Number(one.at('DMXBreak') || 1),
      offset: Number(one.at('DMXOffset') || 1),
    }));
    const next = geometries.get(target);
    return next && look(next, [...chain, breaks], [...inside, target]);
  };
  const fault = look(root, [], [root.at('Name')]);
  return fault === undefined ? ok(found) : refuse('not-understood', fault);
}

/** Block and slots a channel is moved by where its geometry stands. */
function shiftAt(placement: Placement, own: number, overwrite: boolean): { block: number; by: number } {
  let block = own;
  let by = 0;
  [...placement].reverse().forEach((breaks, i) => {
    const fits = breaks.find((one) => one.block === block);
    // The innermost reference says the block of channels that leave it open: by its last break.
    const found = i === 0 ? (overwrite ? breaks[breaks.length - 1] : (fits ?? breaks[0])) : fits;
    if (!found) return;
    block = found.block;
    by += found.offset - 1;
  });
  return { block, by };
}

/** Named values of a channel: its channel sets, or its functions where those have none. */
function rangesOf(functions: readonly XmlElement[], bytes: number, { wheels }: TypeParts): ValueRange[] {
  const maximum = 256 ** bytes - 1;
  const marks: { name: string; from: number; colour: string | undefined; begins: boolean }[] = [];
  for (const one of functions) {
    const start = readDmxValue(one.at('DMXFrom') || '0/1', bytes) ?? 0;
    const sets = one.all('ChannelSet');
    const slots = wheels.get(one.at('Wheel')) ?? [];
    const mark = (name: string, from: number, colour?: string) =>
      marks.push({ name, from, colour, begins: from === start });
    if (sets.length === 0 && functions.length > 1) mark(one.at('Name'), start);
    else if (sets.length > 0 && (readDmxValue(sets[0]!.at('DMXFrom'), bytes) ?? 0) > start) mark('', start);
    for (const set of sets) {
      const slot = slots[Number(set.at('WheelSlotIndex')) - 1];
      mark(set.at('Name').trim(), readDmxValue(set.at('DMXFrom'), bytes) ?? 0, slot && readColour(slot.at('Color')));
    }
  }
  marks.sort((a, b) => a.from - b.from);
  const ranges: ValueRange[] = [];
  marks.forEach(({ name, from, colour, begins }, i) => {
    const to = (marks[i + 1]?.from ?? maximum + 1) - 1;
    if (name === '' || to < from || from > maximum) return;
    const last = ranges[ranges.length - 1];
    // One value that reaches over several functions is said in each of them.
    const goesOn = begins && last?.name === fitted(name) && last.colour === colour && last.to === from - 1;
    if (goesOn) ranges[ranges.length - 1] = { ...last, to };
    else ranges.push({ name: fitted(name), from, to, ...(colour !== undefined && { colour }) });
  });
  return ranges;
}

/** A channel as we have it, and the element that it came from. */
export interface ReadChannel {
  readonly channel: FixtureChannel;
  readonly element: XmlElement;
}

export const functionsOf = (channel: XmlElement): XmlElement[] =>
  channel.all('LogicalChannel').flatMap((logical) => logical.all('ChannelFunction'));

/** The function that a channel begins in: the one it names, else its first. */
export function initialFunction(channel: XmlElement, functions: readonly XmlElement[]): XmlElement | undefined {
  const named = channel.at('InitialFunction');
  return functions.find((one) => one.at('Name') !== '' && named.endsWith(`.${one.at('Name')}`)) ?? functions[0];
}

/** The value that shows a channel's light where the file does not say: full for what lights, else as it begins. */
export function workedOutHighlight(
  attribute: string,
  bytes: number,
  begins: number,
  ranges: readonly ValueRange[],
): number {
  if (lightsWith(attribute)) return 256 ** bytes - 1;
  const open = /^Shutter\d*$/.test(attribute) ? ranges.filter(({ name }) => /\bopen\b/i.test(name)) : [];
  return open.length === 0 || open.some(({ from, to }) => from <= begins && begins <= to) ? begins : open[0]!.from;
}

function channelsOf(
  element: XmlElement,
  places: ReadonlyMap<string, Placement[]>,
  parts: TypeParts,
): Result<ReadChannel[]> {
  const all = functionsOf(element);
  const attribute = fitted(element.child('LogicalChannel')?.at('Attribute') || all[0]?.at('Attribute') || 'NoFeature');
  const offsets = readOffsets(element, attribute);
  if (!offsets.ok) return offsets;
  // A virtual channel takes no slot.
  if (offsets.value.length === 0) return ok([]);
  const bytes = offsets.value.length;
  const initial = initialFunction(element, all);
  const value = readDmxValue(initial?.at('Default') || element.at('Default'), bytes) ?? 0;
  const ranges = rangesOf(all, bytes, parts);
  const base = {
    attribute,
    default: value,
    highlight: readDmxValue(element.at('Highlight'), bytes) ?? workedOutHighlight(attribute, bytes, value, ranges),
    ...(ranges.length > 0 && { ranges }),
  };
  const placed = (block: number, by: number, cell: number | undefined): ReadChannel => ({
    element,
    channel: {
      ...base,
      offsets: offsets.value.map((offset) => offset + by),
      ...(cell !== undefined && { cell }),
      ...(block > 1 && { block }),
    },
  });
  const overwrite = element.at('DMXBreak') === 'Overwrite';
  const own = overwrite ? 1 : Number(element.at('DMXBreak') || 1);
  const geometry = element.at('Geometry');
  const here = (places.get(geometry) ?? []).filter((chain) => chain.length > 0);
  if (here.length === 0) {
    const numbered = /^Cell (\d+)(?: of Taxiarch)?(?: \d+)?(?:, part \d+)?$/.exec(geometry);
    return ok([placed(own, 0, numbered ? Number(numbered[1]) : undefined)]);
  }
  return ok(
    here.map((chain, i) => {
      const { block, by } = shiftAt(chain, own, overwrite);
      return placed(block, by, i + 1);
    }),
  );
}

export const channelElements = (mode: XmlElement): readonly XmlElement[] =>
  mode.child('DMXChannels')?.all('DMXChannel') ?? [];

/** The channels of a mode, by block and slot, each with its element; not yet looked at as a whole. */
export function readChannels(mode: XmlElement, parts: TypeParts): Result<ReadChannel[]> {
  const root = parts.geometries.get(mode.at('Geometry'));
  const places = root ? placementsOf(root, parts) : ok(new Map<string, Placement[]>());
  if (!places.ok) return places;
  const channels: ReadChannel[] = [];
  for (const element of channelElements(mode)) {
    const some = channelsOf(element, places.value, parts);
    if (!some.ok) return some;
    channels.push(...some.value);
  }
  return ok(
    channels.sort(({ channel: a }, { channel: b }) => blockOf(a) - blockOf(b) || a.offsets[0]! - b.offsets[0]!),
  );
}

/** A mode; refused in a sentence if it cannot be. One without channels is a mode too. */
export function readMode(element: XmlElement, parts: TypeParts): Result<FixtureMode> {
  const read = readChannels(element, parts);
  if (!read.ok) return read;
  const made = { name: fitted(element.at('Name')) || 'Mode', channels: read.value.map(({ channel }) => channel) };
  const fault = made.channels.length === 0 ? undefined : modeFault(made);
  return fault === undefined ? ok(made) : refuse('not-possible', fault);
}
