/**
 * The scene that a show stands on: everything that came in from elsewhere, also what was not taken over, and what a later
 * and leaner file did not hold any more (MVR, DIN SPEC 15801).
 */
import { fixtureKey, fixturesOf, isPatched, objectsOf, openScene, SCENE, uuidOf } from './mvrScene';
import { entryNamed, makeZip, type Entries } from './zip';
import { writeXml, XmlElement } from './xml';

/** Entry of a kept scene that says which of its fixtures were taken over; it never goes out. */
export const TAKEN = 'taxiarch-taken.json';

/** By what the fixtures that were taken over are told; undefined where nobody kept that. */
export function takenOver(entries: Entries): ReadonlySet<string> | undefined {
  const said = entries[TAKEN];
  if (!said) return undefined;
  try {
    return new Set(JSON.parse(new TextDecoder().decode(said)) as string[]);
  } catch {
    return undefined;
  }
}

const keyOf = (element: XmlElement): string =>
  isPatched(element) ? fixtureKey(element) : `${element.name} ${uuidOf(element) || element.at('name').trim()}`;

/** Children of `older` that `newer` has not, put after its own: by UUID, else by name. */
function addMissing(newer: XmlElement, older: XmlElement, tags: readonly string[]): void {
  const there = new Set(newer.children.map(keyOf));
  for (const one of older.children)
    if ((tags.length === 0 || tags.includes(one.name)) && !there.has(keyOf(one))) newer.children.push(one);
}

/** Objects of the older scene that the newer has not, put into layers of the same name. */
function addObjects(newer: XmlElement, older: XmlElement): void {
  const there = new Set(objectsOf(newer).map(({ element }) => keyOf(element)));
  const layers = newer.made('Scene').made('Layers');
  const merge = (into: XmlElement, from: XmlElement) => {
    for (const one of from.children) {
      const same = into.children.find((other) => keyOf(other) === keyOf(one));
      if (same) {
        const inner = one.child('ChildList');
        if (inner) merge(same.made('ChildList'), inner);
      } else if (!there.has(keyOf(one))) {
        // What of it stands elsewhere in the newer scene is not doubled.
        const inner = one.child('ChildList');
        inner?.without(new Set(inner.children.filter((child) => there.has(keyOf(child)))));
        into.children.push(one);
      }
    }
  };
  for (const layer of older.child('Scene')?.child('Layers')?.all('Layer') ?? []) {
    const name = layer.at('name').trim();
    let same = layers.all('Layer').find((one) => uuidOf(one) === uuidOf(layer) || one.at('name').trim() === name);
    if (!same) {
      same = new XmlElement('Layer', { ...layer.attributes }, [
        ...layer.children.filter((one) => one.name !== 'ChildList'),
        new XmlElement('ChildList'),
      ]);
      layers.children.push(same);
    }
    merge(same.made('ChildList'), layer.child('ChildList') ?? new XmlElement('ChildList'));
  }
}

/**
 * The scene to keep when `next` comes in over `kept`: what both have is as in `next`, the rest of `kept` stays. `taken` are
 * the keys of the fixtures of `next` that are taken over.
 */
export function nextGround(kept: Uint8Array | undefined, next: Uint8Array, taken: ReadonlySet<string>): Uint8Array {
  const newer = openScene(next);
  if (!newer.ok) return kept ?? next;
  const older = kept && openScene(kept);
  const known = older?.ok ? takenOver(older.value.entries) : undefined;
  const before = older?.ok
    ? (known ?? new Set(fixturesOf(older.value.root).map(({ element }) => fixtureKey(element))))
    : [];
  const entries: Record<string, Uint8Array> = { ...newer.value.entries };
  const { root, entry } = newer.value;
  delete entries[entry];
  if (older?.ok) {
    for (const [name, content] of Object.entries(older.value.entries))
      if (name !== older.value.entry && entryNamed(entries, name) === undefined) entries[name] = content;
    addMissing(root, older.value.root, ['UserData']);
    const scene = root.made('Scene');
    const old = older.value.root.child('Scene');
    if (old) {
      const auxiliary = old.child('AUXData');
      if (auxiliary) addMissing(scene.made('AUXData'), auxiliary, []);
      addObjects(root, older.value.root);
    }
  }
  entries[TAKEN] = new TextEncoder().encode(JSON.stringify([...new Set([...before, ...taken])]));
  return makeZip({ ...entries, [SCENE]: writeXml(root) });
}
