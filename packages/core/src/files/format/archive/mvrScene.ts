/** An MVR scene (DIN SPEC 15801): opening it, and finding fixtures and what they refer to. */
import { fromAbsolute, NO_ADDRESS, type SlotAddress, SLOTS } from '../../../base/address';
import { ok, refuse, type Result } from '../../../base/result';
import { fitted, guidOf, isGuid } from '../../arrival';
import { readMatrix, within, type Matrix } from './matrix';
import { entryNamed, openZip, type Entries } from './zip';
import { readXml, type XmlElement } from './xml';

export const SCENE = 'GeneralSceneDescription.xml';

export interface Scene {
  readonly entries: Entries;
  /** The entry that is the scene */
  readonly entry: string;
  readonly root: XmlElement;
}

export function openScene(bytes: Uint8Array): Result<Scene> {
  const entries = openZip(bytes);
  if (!entries.ok) return entries;
  const entry = entryNamed(entries.value, SCENE);
  if (entry === undefined) return refuse('not-understood', `The archive holds no ${SCENE}, so it is no MVR file.`);
  const root = readXml(entries.value[entry]!, 'The scene description');
  if (!root.ok) return root;
  if (root.value.name !== 'GeneralSceneDescription')
    return refuse('not-understood', 'The scene description does not describe a scene.');
  return ok({ entries: entries.value, entry, root: root.value });
}

/** Something in the tree of a scene, and what it stands in. */
export interface Found {
  readonly element: XmlElement;
  readonly layer: string;
  readonly groups: readonly string[];
  /** Of what it stands in */
  readonly parent: Matrix;
  /** The list that it is in */
  readonly siblings: XmlElement;
}

/** What can stand in a child list */
const OBJECTS: ReadonlySet<string> = new Set([
  'Fixture',
  'GroupObject',
  'SceneObject',
  'FocusPoint',
  'Truss',
  'Support',
  'VideoScreen',
  'Projector',
]);

function* objectsIn(
  list: XmlElement | undefined,
  layer: string,
  groups: readonly string[],
  parent: Matrix,
): Generator<Found> {
  for (const element of list?.children ?? []) {
    if (OBJECTS.has(element.name)) yield { element, layer, groups, parent, siblings: list! };
    const inner = element.child('ChildList');
    if (!inner) continue;
    const named = element.name === 'GroupObject' ? fitted(element.at('name')) : '';
    yield* objectsIn(
      inner,
      layer,
      named === '' ? groups : [...groups, named],
      within(parent, readMatrix(element.textOf('Matrix'))),
    );
  }
}

/** Everything that stands in the layers of a scene, in its order, however deep. */
export function objectsOf(root: XmlElement): Found[] {
  return (root.child('Scene')?.child('Layers')?.all('Layer') ?? []).flatMap((layer) => [
    ...objectsIn(layer.child('ChildList'), fitted(layer.at('name')), [], readMatrix(layer.textOf('Matrix'))),
  ]);
}

/** What can be patched: fixtures, and supports (hoists) that have an address. */
export const isPatched = (element: XmlElement): boolean =>
  element.name === 'Fixture' ||
  (element.name === 'Support' &&
    addressElements(element).some(({ text }) => (readMvrAddress(text)?.universe ?? 0) > 0));

export const fixturesOf = (root: XmlElement): Found[] => objectsOf(root).filter(({ element }) => isPatched(element));

/** A UUID in small letters, one made from what stands there if that is none; empty if nothing does. */
export function uuidOf(element: XmlElement): string {
  const said = element.at('uuid').trim().toLowerCase();
  return said === '' || isGuid(said) ? said : guidOf(said);
}

/** By what a fixture of a scene is told from the others, also where it has no UUID. */
export const fixtureKey = (element: XmlElement): string =>
  uuidOf(element) || `${element.textOf('FixtureID')} ${element.at('name').trim()}`;

/** Names of hanging positions and classes by their UUID, as fixtures refer to them. */
export function auxiliaries(root: XmlElement, tag: 'Position' | 'Class'): ReadonlyMap<string, string> {
  const all = root.child('Scene')?.child('AUXData')?.all(tag) ?? [];
  return new Map(all.map((one) => [one.at('uuid').trim().toLowerCase(), fitted(one.at('name'))]));
}

/** `513`, or `2.1` of universe and channel; none for nothing, `0` and words that say so; undefined if it is neither. */
export function readMvrAddress(text: string): SlotAddress | undefined {
  const said = text.trim();
  if (/^(|0|0\.0|-1|none)$/i.test(said)) return NO_ADDRESS;
  const parts = /^(\d+)\s*[.]\s*(\d+)$/.exec(said);
  if (parts) {
    const [universe, channel] = [Number(parts[1]), Number(parts[2])];
    const absolute = fromAbsolute((universe - 1) * SLOTS + channel);
    return universe >= 1 && channel >= 1 && channel <= SLOTS && absolute.ok ? absolute.value : undefined;
  }
  const absolute = /^\d+$/.test(said) ? fromAbsolute(Number(said), 1) : undefined;
  return absolute?.ok ? absolute.value : undefined;
}

export const addressElements = (fixture: XmlElement): XmlElement[] =>
  [...(fixture.child('Addresses')?.all('Address') ?? [])].sort((a, b) => Number(a.at('break')) - Number(b.at('break')));
