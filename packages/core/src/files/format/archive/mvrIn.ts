/** MVR 1.6 (DIN SPEC 15801): a rig as it comes in. Lengths are millimetres there and metres here. */
import equal from 'fast-deep-equal';
import { NO_ADDRESS, type SlotAddress } from '../../../base/address';
import { countOf } from '../../../show/edit';
import { ok, refuse, type Result } from '../../../base/result';
import type { FixtureMode, FixtureType, PixelRun } from '../../../show/records';
import {
  fitted,
  guidOf,
  type Incoming,
  type IncomingLamp,
  type IncomingRun,
  type TypeAndMode,
  unknownType,
} from '../../arrival';
import { readGdtf } from './gdtf';
import { matrixIn, readMatrix, within } from './matrix';
import {
  addressElements,
  auxiliaries,
  fixtureKey,
  isPatched,
  objectsOf,
  openScene,
  readMvrAddress,
  uuidOf,
  type Found,
  type Scene,
} from './mvrScene';
import { runsIn } from './mvrOthers';
import { entryNamed } from './zip';
import type { XmlElement } from './xml';

const MOST_FIXTURES = 50_000;
const HIGHEST_NUMBER = 999_999;
/** Groups that a lamp can be in, outermost first */
const MOST_GROUPS = 200;
/** m */
const FARTHEST = 10_000;

export interface MvrContent extends Incoming {
  /** Type files that stood in the archive, by the id of their type */
  readonly typeFiles: ReadonlyMap<string, Uint8Array>;
}

const folded = (text: string): string => text.normalize('NFC').trim().replace(/\s+/g, ' ');

/** The mode that is meant: as written, else whatever its spaces, else whatever its capitals if only one is so. */
function modeMeant(modes: readonly FixtureMode[], wanted: string): FixtureMode | undefined {
  const exact = modes.find(({ name }) => name === wanted) ?? modes.find(({ name }) => folded(name) === folded(wanted));
  if (exact) return exact;
  const small = modes.filter(({ name }) => folded(name).toLowerCase() === folded(wanted).toLowerCase());
  return small.length === 1 ? small[0] : undefined;
}

/** The types of a scene, read from its archive once each. */
class SceneTypes {
  /** By id */
  readonly types = new Map<string, FixtureType>();
  readonly files = new Map<string, Uint8Array>();
  readonly notes: string[] = [];
  private readonly read = new Map<string, FixtureType | 'no lamp' | undefined>();

  constructor(private readonly scene: Scene) {}

  private known(spec: string): FixtureType | 'no lamp' | undefined {
    if (this.read.has(spec)) return this.read.get(spec);
    const { entries } = this.scene;
    const entry = spec === '' ? undefined : (entryNamed(entries, spec) ?? entryNamed(entries, `${spec}.gdtf`));
    const value = entry === undefined ? this.missing(spec) : this.readEntry(spec, entries[entry]!);
    this.read.set(spec, value);
    return value;
  }

  private missing(spec: string): undefined {
    this.notes.push(spec === '' ? 'Some fixtures name no type.' : `The type “${spec}” is not in the archive.`);
    return undefined;
  }

  private readEntry(spec: string, file: Uint8Array): FixtureType | 'no lamp' | undefined {
    const content = readGdtf(file);
    if (!content.ok) {
      if (content.reason === 'nothing') return 'no lamp';
      this.notes.push(`The type “${spec}” cannot be read: ${content.why}`);
      return undefined;
    }
    const { notes } = content.value;
    this.notes.push(...notes.map((note) => `${spec}: ${note}`));
    return this.add(content.value.type, file);
  }

  /** Another type under an id that is taken is a type of its own. */
  private add(type: FixtureType, file: Uint8Array): FixtureType {
    const there = this.types.get(type.id);
    if (there && equal(there, type)) return there;
    const made = there ? { ...type, id: guidOf(`${type.id} ${type.maker} ${type.name} ${this.types.size}`) } : type;
    if (there)
      this.notes.push(
        `${type.maker} ${type.name} has the same id as ${there.maker} ${there.name}; they are two types here.`,
      );
    this.types.set(made.id, made);
    this.files.set(made.id, file);
    return made;
  }

  /** A type of which a file says the name only; its modes are those that are asked for. */
  private named(spec: string, mode: string, lacks: string): TypeAndMode {
    const base = fitted(spec.replace(/^.*\//, '').replace(/\.gdtf$/i, '')) || 'A type without a name';
    const [maker = '', name = ''] = base.includes('@') ? base.split('@') : ['', base];
    const id = guidOf(`not known ${spec} ${lacks}`);
    const made = unknownType({ id, maker, name: `${name || base}${lacks}`, mode }, this.types.get(id));
    this.types.set(id, made.type);
    return made;
  }

  /** The type as a fixture names it: the one that was read, or one of which only the name is known. */
  of(element: XmlElement): TypeAndMode | 'no lamp' {
    const spec = element.textOf('GDTFSpec');
    const wanted = element.textOf('GDTFMode');
    const type = this.known(spec);
    if (type === 'no lamp') return type;
    if (!type) return this.named(spec, wanted, '');
    const mode =
      modeMeant(type.modes, wanted) ?? (wanted === '' && type.modes.length === 1 ? type.modes[0] : undefined);
    return mode ? { type, mode: mode.name } : this.named(spec, wanted, `, mode “${fitted(wanted, 40)}”`);
  }
}

/** “A, B, C and 9 more” */
const someNames = (names: readonly string[]): string =>
  `${names.slice(0, 3).join(', ')}${names.length > 3 ? ` and ${names.length - 3} more` : ''}`;

/** What of a scene is no fixture, by what it is called */
const OTHERS: Readonly<Record<string, readonly [one: string, many: string]>> = {
  SceneObject: ['scene object', 'scene objects'],
  FocusPoint: ['focus point', 'focus points'],
  Truss: ['truss', 'trusses'],
  Support: ['support', 'supports'],
  VideoScreen: ['video screen', 'video screens'],
  Projector: ['projector', 'projectors'],
};

function othersIn(objects: readonly Found[]): string[] {
  return Object.entries(OTHERS).flatMap(([tag, [one, many]]) => {
    const names = objects
      .filter(({ element }) => element.name === tag && !isPatched(element))
      .map(({ element }) => fitted(element.at('name')));
    if (names.length === 0) return [];
    const named = names.filter((name) => name !== '');
    return [
      `${names.length} ${names.length === 1 ? one : many} of the scene ${names.length === 1 ? 'is' : 'are'} kept and ${names.length === 1 ? 'goes' : 'go'} out again${named.length > 0 ? `: ${someNames(named)}` : ''}.`,
    ];
  });
}

/** Gives each fixture its number; those that have none, or only a word, get a free one, and that is said. */
class Numbers {
  private readonly taken: Set<number>;
  readonly given: string[] = [];

  constructor(fixtures: readonly XmlElement[]) {
    this.taken = new Set(fixtures.flatMap((one) => Numbers.said(one) ?? []));
  }

  private static whole(text: string): number | undefined {
    const number = /^\d+$/.test(text) ? Number(text) : 0;
    return number >= 1 && number <= HIGHEST_NUMBER ? number : undefined;
  }

  private static said(fixture: XmlElement): number | undefined {
    return this.whole(fixture.textOf('FixtureIDNumeric')) ?? this.whole(fixture.textOf('FixtureID'));
  }

  of(fixture: XmlElement, name: string): { number: number; written: string } {
    const id = fitted(fixture.textOf('FixtureID'), 40);
    const said = Numbers.said(fixture);
    if (said !== undefined) return { number: said, written: id === String(said) || id === '0' ? '' : id };
    let number = Numbers.whole(/\d+/.exec(id)?.[0] ?? '') ?? 1;
    while (this.taken.has(number)) number += 1;
    this.taken.add(number);
    this.given.push(`${id === '' || id === '0' ? name : id} gets ${number}`);
    return { number, written: id === '0' ? '' : id };
  }
}

/** Addresses by block; those that cannot be are none, and are noted. */
function addressesIn(fixture: XmlElement, name: string, notes: string[]): SlotAddress[] {
  const addresses: SlotAddress[] = [];
  const given = new Set<number>();
  addressElements(fixture).forEach((one, i) => {
    const at = readMvrAddress(one.text);
    if (!at) notes.push(`${name}: “${fitted(one.text, 40)}” is no address; it is left without one.`);
    const block = Number(one.at('break'));
    const place = Number.isInteger(block) && block >= 0 && block < 64 ? block : i;
    if (given.has(place)) {
      notes.push(`${name}: two addresses for its part ${place + 1}; “${fitted(one.text, 40)}” is left out.`);
      return;
    }
    given.add(place);
    while (addresses.length < place) addresses.push(NO_ADDRESS);
    addresses[place] = at ?? NO_ADDRESS;
  });
  return addresses;
}

/** Fixtures that stand for runs of pixels in a scene of ours become runs again. */
function runsApart(
  lamps: readonly IncomingLamp[],
  known: readonly PixelRun[],
): { plain: IncomingLamp[]; runs: IncomingRun[] } {
  const byUuid = new Map(known.map((run) => [guidOf(run.id), run]));
  const runs: IncomingRun[] = [];
  const plain = lamps.filter(({ uuid, addresses = [], place = '' }) => {
    const run = uuid ? byUuid.get(uuid) : undefined;
    if (run) runs.push({ run, addresses, place });
    return run === undefined;
  });
  return { plain, runs };
}

/** The rig in an MVR file. `progress` is told how many fixtures are read, of how many. */
export function readMvr(
  bytes: Uint8Array,
  progress: (done: number, of: number) => void = () => undefined,
): Result<MvrContent> {
  const opened = openScene(bytes);
  if (!opened.ok) return opened;
  const { root } = opened.value;
  const objects = objectsOf(root);
  const fixtures = objects.filter(({ element }) => isPatched(element));
  if (fixtures.length > MOST_FIXTURES)
    return refuse('out-of-range', `The scene has more than ${MOST_FIXTURES} fixtures.`);
  const types = new SceneTypes(opened.value);
  const numbers = new Numbers(fixtures.map(({ element }) => element));
  const [positions, classes] = [auxiliaries(root, 'Position'), auxiliaries(root, 'Class')];
  const notes: string[] = [];
  const lamps: IncomingLamp[] = [];
  const machines: string[] = [];
  const uuids = new Set<string>();
  const doubled: string[] = [];
  const far: string[] = [];
  const odd: string[] = [];
  fixtures.forEach(({ element, layer, groups, parent }, i) => {
    if (i % 100 === 0) progress(i, fixtures.length);
    const name = fitted(element.at('name')) || `Fixture ${i + 1}`;
    const named = types.of(element);
    if (named === 'no lamp') {
      machines.push(name);
      return;
    }
    let uuid = uuidOf(element);
    if (uuid !== '' && uuids.has(uuid)) {
      doubled.push(name);
      uuid = '';
    }
    uuids.add(uuid);
    const metres = within(parent, readMatrix(element.textOf('Matrix')))[3]!.map(
      (millimetres) => Math.round(millimetres) / 1000,
    );
    const text = element.textOf('Matrix');
    const isPlace = text.trim() === '' || matrixIn(text) !== undefined;
    if (!isPlace) odd.push(name);
    const near = isPlace && metres.every((one) => Math.abs(one) <= FARTHEST);
    if (isPlace && !near) far.push(name);
    const unit = fitted(element.textOf('UnitNumber'), 40);
    lamps.push({
      uuid,
      source: fixtureKey(element),
      ...numbers.of(element, name),
      name,
      typeId: named.type.id,
      mode: named.mode,
      addresses: addressesIn(element, name, notes),
      place: layer,
      groups: groups.slice(0, MOST_GROUPS),
      unit: unit === '0' ? '' : unit,
      position: positions.get(element.textOf('Position').toLowerCase()) ?? '',
      class: classes.get(element.textOf('Classing').toLowerCase()) ?? '',
      function: fitted(element.textOf('Function')),
      ...(near && { x: metres[0]!, y: metres[1]!, z: metres[2]! }),
    });
  });
  progress(fixtures.length, fixtures.length);
  const several = (names: readonly string[], says: (count: string) => string) =>
    names.length === 0 ? [] : [`${says(countOf(names.length, 'fixture'))}: ${someNames(names)}.`];
  const version = root.at('verMajor').trim();
  const all = [
    ...(version === '' || version === '1'
      ? []
      : [`The file is MVR version ${version}; version 1 is read here. Check what comes in.`]),
    ...types.notes,
    ...notes,
    ...several(
      numbers.given,
      (count) => `${count} without a number of ${numbers.given.length === 1 ? 'its' : 'their'} own`,
    ),
    ...several(doubled, (count) => `${count} with the id of another; told apart by number and name`),
    ...several(far, (count) => `${count} farther away than ${FARTHEST} m; their places are left out`),
    ...several(odd, (count) => `${count} whose matrix cannot be read; their places are left out`),
    ...several(machines, (count) => `${count} without channels, so no lamps; kept in the scene`),
    ...othersIn(objects),
  ];
  const { plain, runs } = runsApart(lamps, runsIn(opened.value.entries));
  const used = new Set(plain.map(({ typeId }) => typeId));
  const ofRuns = new Set(lamps.flatMap((lamp) => (plain.includes(lamp) || used.has(lamp.typeId) ? [] : [lamp.typeId])));
  if (lamps.length === 0) return refuse('not-understood', all[0] ?? 'The scene has no fixtures.');
  return ok({
    types: [...types.types.values()].filter(({ id }) => !ofRuns.has(id)),
    lamps: plain,
    runs,
    notes: all,
    file: null,
    typeFiles: types.files,
  });
}
