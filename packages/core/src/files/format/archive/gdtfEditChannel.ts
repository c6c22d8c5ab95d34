/** One channel of a foreign GDTF file, edited in its element: only what differs is written. */
import equal from 'fast-deep-equal';
import { blockOf } from '../../../rig/fixture';
import type { FixtureChannel, ValueRange } from '../../../show/records';
import { functionsOf, initialFunction, type TypeParts, workedOutHighlight } from './gdtfMode';
import { readDmxValue, writeColour, writeDmxValue } from './gdtfValue';
import { XmlElement } from './xml';

/** A channel with its slots as its element writes them, before references move them */
export type OwnChannel = Omit<FixtureChannel, 'cell'>;

/** Named values of one function, put into it: sets that begin and are called as before stay as they are. */
function setRanges(
  one: XmlElement,
  from: number,
  to: number,
  ranges: readonly ValueRange[],
  bytes: number,
  { wheels }: TypeParts,
): void {
  const there = new Map(one.all('ChannelSet').map((set) => [readDmxValue(set.at('DMXFrom'), bytes) ?? 0, set]));
  const sets: XmlElement[] = [];
  let next = from;
  const set = (name: string, at: number): XmlElement => {
    const kept = there.get(at) ?? new XmlElement('ChannelSet', { Name: '', DMXFrom: writeDmxValue(at, bytes) });
    if (kept.at('Name').trim() !== name) kept.attributes['Name'] = name;
    sets.push(kept);
    return kept;
  };
  const within = ranges.filter((range) => range.from <= to && range.to >= from);
  for (const range of within) {
    const begins = Math.max(from, range.from);
    if (begins > next) set('', next);
    const made = set(range.name, begins);
    const slot = wheels.get(one.at('Wheel'))?.[Number(made.at('WheelSlotIndex')) - 1];
    if (slot && range.colour !== undefined) slot.attributes['Color'] = writeColour(range.colour);
    next = Math.min(to, range.to) + 1;
  }
  // A function that has no sets is a value by its own name; one that is to be none gets a set without a name.
  if (next <= to) set('', next);
  one.children = [...one.children.filter(({ name }) => name !== 'ChannelSet'), ...sets];
}

/** Puts the named values into the functions that they lie in; a function that is one value by its own name stays. */
function editRanges(
  element: XmlElement,
  was: readonly ValueRange[],
  now: readonly ValueRange[],
  bytes: number,
  /** Of other values than before: what stood there says nothing of them */
  resized: boolean,
  parts: TypeParts,
): void {
  const functions = functionsOf(element);
  const begins = functions.map((one) => readDmxValue(one.at('DMXFrom') || '0/1', bytes) ?? 0);
  functions.forEach((one, i) => {
    const from = begins[i]!;
    const to = Math.min(256 ** bytes, ...begins.filter((other) => other > from)) - 1;
    const inside = (ranges: readonly ValueRange[]) => ranges.filter((range) => range.from <= to && range.to >= from);
    if (resized || !equal(inside(was), inside(now))) setRanges(one, from, to, inside(now), bytes, parts);
  });
}

/** Writes into `element` what of `now` differs from `was`. */
export function editChannel(element: XmlElement, was: OwnChannel, now: OwnChannel, parts: TypeParts): void {
  const bytes = now.offsets.length;
  const functions = functionsOf(element);
  if (!equal(was.offsets, now.offsets)) {
    // Files of version 1.0 say the bytes apart; one way of saying them is enough.
    for (const part of ['Coarse', 'Fine', 'Ultra', 'Uber']) delete element.attributes[part];
    element.attributes['Offset'] = now.offsets.join(',');
  }
  if (blockOf(was) !== blockOf(now)) element.attributes['DMXBreak'] = String(blockOf(now));
  if (was.default !== now.default) {
    const holder = initialFunction(element, functions) ?? element;
    holder.attributes['Default'] = writeDmxValue(now.default, bytes);
  }
  const resized = was.offsets.length !== bytes;
  const [had, has] = [was.ranges ?? [], now.ranges ?? []];
  if (!equal(had, has) || (resized && has.length > 0)) editRanges(element, had, has, bytes, resized, parts);
  if (was.attribute !== now.attribute)
    for (const one of [...element.all('LogicalChannel'), ...functions])
      if (one.at('Attribute') === was.attribute) one.attributes['Attribute'] = now.attribute;
  const said = readDmxValue(element.at('Highlight'), bytes);
  // Where the file says none it is worked out, from what the channel is now.
  const highlight = said ?? workedOutHighlight(now.attribute, bytes, now.default, now.ranges ?? []);
  if (highlight !== now.highlight) element.attributes['Highlight'] = writeDmxValue(now.highlight, bytes);
}
