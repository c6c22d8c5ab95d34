/** MVR 1.6 (DIN SPEC 15801): rigs in and out. Lengths are millimetres there and metres here. */
import { fromAbsolute, type SlotAddress, SLOTS, toAbsolute } from '../../address';
import { ok, refuse, type Result } from '../../result';
import { addressesOf } from '../../patch';
import type { FixtureType, Lamp, Place, ShowRecords } from '../../records';
import { readGdtf } from './gdtf';
import { gdtfName, writeGdtf } from './gdtfOut';
import { guidOf } from './guid';
import type { Incoming, IncomingLamp } from '../rigImport';
import { type Entries, makeZip, openZip } from './zip';
import { readXml, writeXml, XmlElement } from './xml';

const SCENE = 'GeneralSceneDescription.xml';
const MOST_FIXTURES = 50_000;

/** Three axes and a point, each of three numbers. */
type Matrix = readonly (readonly [number, number, number])[];
const IDENTITY: Matrix = [
  [1, 0, 0],
  [0, 1, 0],
  [0, 0, 1],
  [0, 0, 0],
];

function readMatrix(text: string): Matrix {
  const rows = [...text.matchAll(/\{([^}]*)\}/g)].map(([, inside]) => inside!.split(',').map(Number));
  if (rows.length !== 4 || rows.some((row) => row.length !== 3 || row.some((number) => !Number.isFinite(number))))
    return IDENTITY;
  return rows as unknown as Matrix;
}

const writeMatrix = (matrix: Matrix): string => matrix.map((row) => `{${row.join(',')}}`).join('');

/** A direction, or with `point` a place, of a child carried into its parent. */
function carry(parent: Matrix, [a, b, c]: readonly [number, number, number], point: boolean): [number, number, number] {
  const at = (axis: number) =>
    a * parent[0]![axis]! + b * parent[1]![axis]! + c * parent[2]![axis]! + (point ? parent[3]![axis]! : 0);
  return [at(0), at(1), at(2)];
}

const within = (parent: Matrix, child: Matrix): Matrix => child.map((row, i) => carry(parent, row, i === 3));

/** Where a place of the world lies within `parent`; the world's own if the parent cannot be turned round. */
function placeWithin(parent: Matrix, world: readonly [number, number, number]): [number, number, number] {
  const [u, v, w, p] = parent as unknown as readonly [number[], number[], number[], number[]];
  const cross = (a: number[], b: number[]) => [
    a[1]! * b[2]! - a[2]! * b[1]!,
    a[2]! * b[0]! - a[0]! * b[2]!,
    a[0]! * b[1]! - a[1]! * b[0]!,
  ];
  const dot = (a: number[], b: number[]) => a[0]! * b[0]! + a[1]! * b[1]! + a[2]! * b[2]!;
  const determinant = dot(u, cross(v, w));
  if (Math.abs(determinant) < 1e-9) return [...world];
  const d = world.map((number, i) => number - p[i]!);
  return [dot(d, cross(v, w)) / determinant, dot(d, cross(w, u)) / determinant, dot(d, cross(u, v)) / determinant];
}

/** A fixture in the tree, and what it stands in. */
interface Found {
  readonly element: XmlElement;
  readonly layer: string;
  readonly groups: readonly string[];
  /** Of what it stands in */
  readonly parent: Matrix;
  readonly siblings: XmlElement;
}

function* fixturesIn(
  list: XmlElement | undefined,
  layer: string,
  groups: readonly string[],
  parent: Matrix,
): Generator<Found> {
  for (const element of list?.children ?? []) {
    if (element.name === 'Fixture') yield { element, layer, groups, parent, siblings: list! };
    const inside = within(parent, readMatrix(element.textOf('Matrix')));
    const nested =
      element.name === 'GroupObject' ? [...groups, element.at('name').trim()].filter((name) => name !== '') : groups;
    yield* fixturesIn(element.child('ChildList'), layer, nested, inside);
  }
}

function* fixturesOf(scene: XmlElement): Generator<Found> {
  for (const layer of scene.child('Scene')?.child('Layers')?.all('Layer') ?? [])
    yield* fixturesIn(layer.child('ChildList'), layer.at('name').trim(), [], readMatrix(layer.textOf('Matrix')));
}

/** `513` or `2.1`; undefined if it is neither. */
function readMvrAddress(text: string): SlotAddress | undefined {
  const parts = text.trim().split('.');
  if (parts.length === 2) {
    const [universe, channel] = parts.map(Number) as [number, number];
    return Number.isInteger(universe) && universe >= 1 && channel >= 1 && channel <= SLOTS
      ? { universe, channel }
      : undefined;
  }
  const absolute = fromAbsolute(Number(text), 1);
  return text.trim() !== '' && absolute.ok ? absolute.value : undefined;
}

const addressElements = (fixture: XmlElement): XmlElement[] =>
  [...(fixture.child('Addresses')?.all('Address') ?? [])].sort((a, b) => Number(a.at('break')) - Number(b.at('break')));

export interface MvrContent extends Incoming {
  /** Type files that stood in the archive, by the id of their type */
  readonly typeFiles: ReadonlyMap<string, Uint8Array>;
}

function openScene(bytes: Uint8Array): Result<{ entries: Entries; scene: XmlElement }> {
  const entries = openZip(bytes);
  if (!entries.ok) return entries;
  const description = entries.value[SCENE];
  if (!description) return refuse('not-understood', `The archive holds no ${SCENE}, so it is no MVR file.`);
  const scene = readXml(description, 'The scene description');
  if (!scene.ok) return scene;
  if (scene.value.name !== 'GeneralSceneDescription')
    return refuse('not-understood', 'The scene description does not describe a scene.');
  return ok({ entries: entries.value, scene: scene.value });
}

/** The rig in an MVR file. `progress` is told how many fixtures are read, of how many. */
export function readMvr(
  bytes: Uint8Array,
  progress: (done: number, of: number) => void = () => undefined,
): Result<MvrContent> {
  const opened = openScene(bytes);
  if (!opened.ok) return opened;
  const { entries, scene } = opened.value;
  const found = [...fixturesOf(scene)];
  if (found.length > MOST_FIXTURES) return refuse('out-of-range', `The scene has more than ${MOST_FIXTURES} fixtures.`);
  const notes: string[] = [];
  const types = new Map<string, FixtureType>();
  const typeFiles = new Map<string, Uint8Array>();
  const specs = new Map<string, FixtureType | undefined>();
  const typeOf = (spec: string): FixtureType | undefined => {
    if (specs.has(spec)) return specs.get(spec);
    const file = entries[spec] ?? entries[`${spec}.gdtf`];
    const type = file && readGdtf(file);
    if (!type) notes.push(`The type “${spec}” is not in the archive; its lamps are left out.`);
    else if (!type.ok) notes.push(`The type “${spec}” cannot be read: ${type.why}`);
    const value = type?.ok ? type.value : undefined;
    if (value && file) {
      types.set(value.id, value);
      typeFiles.set(value.id, file);
    }
    specs.set(spec, value);
    return value;
  };
  const lamps: IncomingLamp[] = [];
  const numbers = new Set<number>();
  found.forEach(({ element, layer, groups, parent }, i) => {
    if (i % 100 === 0) progress(i, found.length);
    const name = element.at('name').trim() || `Fixture ${i + 1}`;
    const type = typeOf(element.textOf('GDTFSpec'));
    if (!type) return;
    const wanted = element.textOf('GDTFMode');
    const mode = type.modes.find((one) => one.name === wanted) ?? type.modes[0]!;
    if (mode.name !== wanted)
      notes.push(`${name} asks for a mode “${wanted}” that ${type.name} has not; it gets ${mode.name}.`);
    let number = Number(element.textOf('FixtureIDNumeric') || /\d+/.exec(element.textOf('FixtureID'))?.[0]);
    if (!Number.isInteger(number) || number < 1 || number > 999_999) {
      number = 1;
      while (numbers.has(number)) number += 1;
      notes.push(`${name} has no number; it gets ${number}.`);
    }
    numbers.add(number);
    const addresses = addressElements(element).flatMap((one) => readMvrAddress(one.text) ?? []);
    const [x, y, z] = within(parent, readMatrix(element.textOf('Matrix')))[3]!;
    const metres = (millimetres: number) => Math.round(millimetres) / 1000;
    lamps.push({
      id: element.at('uuid').toLowerCase() || undefined,
      number,
      name,
      typeId: type.id,
      mode: mode.name,
      addresses,
      place: layer,
      groups,
      x: metres(x),
      y: metres(y),
      z: metres(z),
    });
  });
  progress(found.length, found.length);
  if (lamps.length === 0) return refuse('not-understood', notes[0] ?? 'The scene has no fixtures.');
  return ok({ types: [...types.values()], lamps, notes: notes.slice(0, 200), file: null, typeFiles });
}

function fixtureElement(lamp: Lamp): XmlElement {
  return new XmlElement('Fixture', { name: lamp.name, uuid: guidOf(lamp.id).toUpperCase() }, [
    new XmlElement('Matrix', {}, [], writeMatrix(IDENTITY)),
    new XmlElement('GDTFSpec'),
    new XmlElement('GDTFMode'),
    new XmlElement('FixtureID'),
    new XmlElement('FixtureIDNumeric'),
    new XmlElement('UnitNumber', {}, [], '0'),
    new XmlElement('Addresses'),
  ]);
}

/** Writes what we know of a lamp into its element; everything else there stays. */
function fillFixture({ element, parent }: Pick<Found, 'element' | 'parent'>, lamp: Lamp, spec: string): void {
  element.attributes['name'] = lamp.name;
  const local = readMatrix(element.textOf('Matrix'));
  const world = [lamp.x * 1000, lamp.y * 1000, lamp.z * 1000] as const;
  const place = placeWithin(parent, world).map((number) => Math.round(number * 1000) / 1000) as [
    number,
    number,
    number,
  ];
  element.setText('Matrix', writeMatrix([...local.slice(0, 3), place]));
  element.setText('GDTFSpec', spec);
  element.setText('GDTFMode', lamp.mode);
  element.setText('FixtureID', String(lamp.number));
  element.setText('FixtureIDNumeric', String(lamp.number));
  const old = addressElements(element);
  const addresses = addressesOf(lamp).map(
    (at, i) => new XmlElement('Address', { break: old[i]?.at('break') ?? String(i) }, [], String(toAbsolute(at))),
  );
  const holder = element.child('Addresses');
  if (holder) holder.children = [...addresses, ...holder.children.filter(({ name }) => name !== 'Address')];
  else element.children.push(new XmlElement('Addresses', {}, addresses));
}

/** The child list of a layer and groups within it, made where they are missing; and the matrix it stands in. */
function listFor(
  layers: XmlElement,
  layerName: string,
  groups: readonly string[],
): { list: XmlElement; parent: Matrix } {
  const descend = (holder: XmlElement, name: string, tag: string): XmlElement => {
    const there = holder.children.find((one) => one.name === tag && one.at('name').trim() === name);
    if (there) return there;
    const made = new XmlElement(
      tag,
      { name, uuid: guidOf(`${tag} ${layerName} ${groups.join('/')} ${name}`).toUpperCase() },
      [new XmlElement('Matrix', {}, [], writeMatrix(IDENTITY)), new XmlElement('ChildList')],
    );
    holder.children.push(made);
    return made;
  };
  const childList = (element: XmlElement): XmlElement => {
    const there = element.child('ChildList');
    if (there) return there;
    const made = new XmlElement('ChildList');
    element.children.push(made);
    return made;
  };
  let element = descend(layers, layerName, 'Layer');
  let parent = readMatrix(element.textOf('Matrix'));
  for (const group of groups) {
    element = descend(childList(element), group, 'GroupObject');
    parent = within(parent, readMatrix(element.textOf('Matrix')));
  }
  return { list: childList(element), parent };
}

const newScene = (): XmlElement =>
  new XmlElement(
    'GeneralSceneDescription',
    { verMajor: '1', verMinor: '6', provider: 'Taxiarch', providerVersion: '1' },
    [new XmlElement('Scene', {}, [new XmlElement('Layers')])],
  );

/**
 * A show's lamps as an MVR file. `foreign` is the file that the show was taken from: its other parts go
 * out again. `fileOf` gives the kept file of a type, if there is one.
 */
export function writeMvr(
  { lamp: lamps, type: types, place: places }: Pick<ShowRecords, 'lamp' | 'type' | 'place'>,
  fileOf: (type: FixtureType) => Uint8Array | undefined,
  foreign?: Uint8Array,
): Uint8Array {
  const opened = foreign && openScene(foreign);
  const scene = opened?.ok ? opened.value.scene : newScene();
  const entries: Record<string, Uint8Array> = opened?.ok ? { ...opened.value.entries } : {};
  let holder = scene.child('Scene');
  if (!holder) scene.children.push((holder = new XmlElement('Scene')));
  let layers = holder.child('Layers');
  if (!layers) holder.children.push((layers = new XmlElement('Layers')));

  const specOf = new Map<string, string>();
  for (const type of types) {
    if (!lamps.some(({ typeId }) => typeId === type.id)) continue;
    const original = Object.keys(entries).find((name) => {
      const known = name.endsWith('.gdtf') ? readGdtf(entries[name]!) : undefined;
      return known?.ok && known.value.maker === type.maker && known.value.name === type.name;
    });
    const spec = original ?? gdtfName(type);
    specOf.set(type.id, spec);
    entries[spec] = writeGdtf(type, fileOf(type) ?? (original === undefined ? undefined : entries[original]));
  }

  const there = [...fixturesOf(scene)];
  const byId = new Map(there.map((found) => [found.element.at('uuid').toLowerCase(), found]));
  const byNumber = new Map(
    there.map((found) => [found.element.textOf('FixtureIDNumeric') || found.element.textOf('FixtureID'), found]),
  );
  const kept = new Set<XmlElement>();
  const placeName = new Map(places.map(({ id, name }: Place) => [id, name]));
  for (const lamp of lamps) {
    const layer = placeName.get(lamp.placeId ?? '') ?? '';
    const spec = specOf.get(lamp.typeId) ?? '';
    let found = byId.get(guidOf(lamp.id)) ?? byNumber.get(String(lamp.number));
    if (found && kept.has(found.element)) found = undefined;
    const element = found?.element ?? fixtureElement(lamp);
    const stays = found?.layer === layer && found.groups.join('/') === lamp.groups.join('/');
    if (stays && found) fillFixture(found, lamp, spec);
    else {
      if (found) found.siblings.children = found.siblings.children.filter((one) => one !== element);
      const { list, parent } = listFor(layers, layer, lamp.groups);
      list.children.push(element);
      fillFixture({ element, parent }, lamp, spec);
    }
    kept.add(element);
  }
  for (const { element, siblings } of there)
    if (!kept.has(element)) siblings.children = siblings.children.filter((one) => one !== element);
  entries[SCENE] = writeXml(scene);
  return makeZip(entries);
}
