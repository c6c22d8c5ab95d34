/**
 * Edits of a type that came from a GDTF file, made in its description: what was edited is written, and nothing else is
 * touched. Wheels, masters, relations, macros, geometries and functions stay.
 */
import equal from 'fast-deep-equal';
import { blockOf } from '../../../rig/fixture';
import type { FixtureChannel, FixtureMode, FixtureType } from '../../../show/records';
import { beamsOf, functionsFor, guessKind, readModes, saidOf } from './gdtf';
import { ASSUMED } from './gdtfWords';
import { editChannel, type OwnChannel } from './gdtfEditChannel';
import { functionsOf, partsOf, readChannels, type ReadChannel, type TypeParts } from './gdtfMode';
import { defineAttributes, guestChannel, guestModes } from './gdtfMake';
import { readOffsets } from './gdtfValue';
import { XmlElement } from './xml';

/** Names in our own geometries that stand in a foreign file */
const OURS = ' of Taxiarch';

/** Pairs what is there with what is wanted, by one likeness after the other. */
function paired<A, B>(
  there: readonly A[],
  wanted: readonly B[],
  alike: readonly ((a: A, b: B) => boolean)[],
): Map<B, A> {
  const pairs = new Map<B, A>();
  const left = new Set(there);
  for (const fits of alike)
    for (const one of wanted) {
      if (pairs.has(one)) continue;
      for (const other of left)
        if (fits(other, one)) {
          pairs.set(one, other);
          left.delete(other);
          break;
        }
    }
  return pairs;
}

/** Everything in a mode that names a channel by its geometry and attribute. */
function* mentions(mode: XmlElement): Generator<readonly [element: XmlElement, attribute: string]> {
  for (const channel of mode.child('DMXChannels')?.children ?? []) {
    yield [channel, 'InitialFunction'];
    for (const one of functionsOf(channel)) yield [one, 'ModeMaster'];
  }
  for (const relation of mode.child('Relations')?.all('Relation') ?? []) {
    yield [relation, 'Master'];
    yield [relation, 'Follower'];
  }
}

const nameOf = (channel: XmlElement): string =>
  `${channel.at('Geometry')}_${channel.child('LogicalChannel')?.at('Attribute') ?? ''}`;

const isOf = (said: string, name: string): boolean => said === name || said.startsWith(`${name}.`);

/** Takes a channel out of a mode, with the relations and conditions that would point to nothing. */
function dropChannel(mode: XmlElement, channel: XmlElement): void {
  const name = nameOf(channel);
  mode.child('DMXChannels')!.without(new Set([channel]));
  if ((mode.child('DMXChannels')?.children ?? []).some((one) => nameOf(one) === name)) return;
  const relations = mode.child('Relations');
  const gone = new Set<XmlElement>();
  for (const [element, attribute] of mentions(mode)) {
    if (!isOf(element.at(attribute), name)) continue;
    if (attribute === 'ModeMaster')
      for (const part of ['ModeMaster', 'ModeFrom', 'ModeTo']) delete element.attributes[part];
    else if (attribute !== 'InitialFunction') gone.add(element);
  }
  relations?.without(gone);
}

/** Follows a channel that is called otherwise in all that names it. */
function followName(mode: XmlElement, before: string, after: string): void {
  if (before === after) return;
  for (const [element, attribute] of mentions(mode)) {
    const said = element.at(attribute);
    if (isOf(said, before)) element.attributes[attribute] = after + said.slice(before.length);
  }
}

/** A channel’s slots as its element would write them, where its cells are moved by references. */
const within = (channel: FixtureChannel, read: ReadChannel, own: readonly number[]): OwnChannel => {
  const by = read.channel.offsets[0]! - own[0]!;
  const { cell: _, ...rest } = channel;
  return { ...rest, offsets: channel.offsets.map((offset) => offset - by) };
};

function editMode(element: XmlElement, now: FixtureMode, type: FixtureType, parts: TypeParts): void {
  const read = readChannels(element, parts);
  if (!read.ok) return;
  const pairs = paired(read.value, now.channels, [
    ({ channel }, one) => equal(channel, one),
    ({ channel }, one) =>
      channel.attribute === one.attribute && channel.cell === one.cell && blockOf(channel) === blockOf(one),
    ({ channel }, one) =>
      blockOf(channel) === blockOf(one) && channel.cell === one.cell && channel.offsets[0] === one.offsets[0],
  ]);
  const wanted = new Map([...pairs].map(([one, there]) => [there, one]));
  const byElement = new Map<XmlElement, ReadChannel[]>();
  for (const one of read.value) byElement.set(one.element, [...(byElement.get(one.element) ?? []), one]);
  const added: FixtureChannel[] = now.channels.filter((one) => !pairs.has(one));
  for (const [channel, reads] of byElement) {
    const next = reads.map((one) => wanted.get(one));
    if (reads.every((one, i) => next[i] && equal(one.channel, next[i]))) continue;
    if (next.every((one) => one === undefined)) {
      dropChannel(element, channel);
      continue;
    }
    const own = ownOffsets(channel);
    const each = next.map((one, i) => one && within(one, reads[i]!, own));
    if (each.every((one) => one !== undefined && equal(one, each[0]))) {
      const name = nameOf(channel);
      editChannel(channel, within(reads[0]!.channel, reads[0]!, own), each[0]!, parts);
      followName(element, name, nameOf(channel));
      continue;
    }
    // Cells that are alike no more: each that is still wanted becomes a channel of its own.
    dropChannel(element, channel);
    added.push(...next.flatMap((one) => one ?? []));
  }
  const root = element.at('Geometry');
  const body = parts.geometries.get(root);
  for (const channel of added) {
    const geometry = channel.cell === undefined || !body ? root : `Cell ${channel.cell}`;
    if (geometry !== root && !body!.children.some((one) => one.at('Name') === geometry))
      body!.children.push(new XmlElement('Geometry', { Name: geometry }));
    element.made('DMXChannels').children.push(guestChannel(type, { channel, geometry }));
  }
}

/** A channel’s slots as its element writes them. */
function ownOffsets(channel: XmlElement): readonly number[] {
  const read = readOffsets(channel, '');
  return read.ok ? read.value : [1];
}

/** Turned or widened as the type says it is, about the middle in which it was. */
function setTravel(element: XmlElement, attribute: string, degrees: number): void {
  for (const one of functionsFor(element, attribute)) {
    const [from, to] = [Number(one.at('PhysicalFrom')), Number(one.at('PhysicalTo'))];
    const middle = Number.isFinite(from + to) ? (from + to) / 2 : 0;
    const half = (degrees / 2) * (to < from ? -1 : 1);
    if (one.at('Name').endsWith(ASSUMED)) one.attributes['Name'] = one.at('Name').slice(0, -ASSUMED.length);
    one.attributes['PhysicalFrom'] = String(middle - half);
    one.attributes['PhysicalTo'] = String(middle + half);
  }
}

/** Whether anything was edited; then `element`, the fixture type of a description, is as `type` says. */
export function editDescription(element: XmlElement, type: FixtureType): boolean {
  const { modes: read } = readModes(element);
  const said = saidOf(
    element,
    read.map(({ mode }) => mode),
  );
  let edited = false;
  const edit = (differs: boolean, act: () => void) => {
    if (!differs) return;
    edited = true;
    act();
  };
  edit(type.name !== said.name, () => (element.attributes['Name'] = type.name));
  edit(type.maker !== said.maker, () => (element.attributes['Manufacturer'] = type.maker));
  // Where it is not said it is guessed from the modes, as they are then.
  edit(type.kind !== guessKind(element.at('Description'), type.modes), () => {
    const words = element.at('Description').replace(/\s*\bkind: \w+/, '');
    element.attributes['Description'] = `${words} kind: ${type.kind}`.trim();
  });
  edit(type.pan !== said.pan, () => setTravel(element, 'Pan', type.pan));
  edit(type.tilt !== said.tilt, () => setTravel(element, 'Tilt', type.tilt));
  for (const [part, attribute] of [
    ['beam', 'BeamAngle'],
    ['field', 'FieldAngle'],
  ] as const)
    edit(type[part] !== said[part], () => {
      for (const beam of beamsOf(element)) beam.attributes[attribute] = String(type[part]);
    });

  const parts = partsOf(element);
  const pairs = paired(read, type.modes, [
    ({ mode }, one) => mode.name === one.name,
    ({ mode }, one) => equal(mode.channels, one.channels),
    ({ mode }, one) =>
      mode.channels.filter((channel) => one.channels.some((other) => equal(channel, other))).length * 2 >
      one.channels.length,
  ]);
  const holder = element.made('DMXModes');
  const kept = new Set([...pairs.values()]);
  edit(kept.size < read.length, () =>
    holder.without(new Set(read.filter((one) => !kept.has(one)).map((one) => one.element))),
  );
  for (const [mode, there] of pairs) {
    edit(mode.name !== there.mode.name, () => (there.element.attributes['Name'] = mode.name));
    edit(!equal(mode.channels, there.mode.channels), () => editMode(there.element, mode, type, parts));
  }
  const fresh = type.modes.filter((mode) => !pairs.has(mode));
  edit(fresh.length > 0, () => {
    const made = guestModes(type, fresh, (i) => `${OURS}${i === 0 ? '' : ` ${i + 1}`}`);
    element.made('Geometries').children.push(...made.geometries);
    holder.children.push(...made.modes);
    fresh.forEach((mode, i) => pairs.set(mode, { mode, element: made.modes[i]! }));
  });
  const order = type.modes.map((mode) => pairs.get(mode)!.element);
  const ours = new Set(order);
  edit(
    !equal(
      holder.children.filter((one) => ours.has(one)),
      order,
    ),
    () => {
      let next = 0;
      holder.children = holder.children.map((one) => (ours.has(one) ? order[next++]! : one));
    },
  );
  if (edited)
    defineAttributes(
      element.made('AttributeDefinitions'),
      [...new Set(type.modes.flatMap(({ channels }) => channels.map(({ attribute }) => attribute)))],
      type,
    );
  return edited;
}
