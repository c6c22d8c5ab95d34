/**
 * MVR 1.6 (DIN SPEC 15801): a show’s lamps, pixels and machines as a scene. In a scene that came from elsewhere only what
 * is known better here is written; all else stays as it was. Lengths are metres here and millimetres there.
 */
import { formatAddress, isAddressed, NO_ADDRESS, toAbsolute, type SlotAddress } from '../../../base/address';
import { guidOf } from '../../arrival';
import { maskText } from '../../../network/ip';
import { addressesOf } from '../../../rig/patch';
import { layRuns } from '../../../rig/pixel';
import type { FixtureType, Lamp, Machine, ShowRecords } from '../../../show/records';
import { writeGdtf } from './gdtfOut';
import { machineGdtf } from './gdtfMachine';
import { IDENTITY, placeWithin, readMatrix, within, writeMatrix, type Matrix } from './matrix';
import {
  addressElements,
  auxiliaries,
  fixtureKey,
  fixturesOf,
  openScene,
  readMvrAddress,
  SCENE,
  uuidOf,
  type Found,
} from './mvrScene';
import { takenOver, TAKEN } from './ground';
import { MACHINES_FROM, outgoingMachine, outgoingRun, RUNS, runsEntry } from './mvrOthers';
import { TypeFiles } from './typeFiles';
import { makeZip } from './zip';
import { writeXml, XmlElement } from './xml';

/** A fixture as it goes out: a lamp, or what stands for a run of pixels or a machine among them. */
interface Outgoing {
  readonly lamp: Lamp;
  /** Name of its type’s file; undefined leaves what is there */
  readonly spec: string | undefined;
  readonly addresses: readonly SlotAddress[];
  readonly machine?: Machine;
}

const newScene = (): XmlElement =>
  new XmlElement(
    'GeneralSceneDescription',
    { verMajor: '1', verMinor: '6', provider: 'Taxiarch', providerVersion: '1' },
    [new XmlElement('Scene', {}, [new XmlElement('Layers')])],
  );

const newFixture = ({ lamp }: Outgoing): XmlElement =>
  new XmlElement('Fixture', { name: lamp.name, uuid: (lamp.uuid || guidOf(lamp.id)).toUpperCase() }, [
    new XmlElement('Matrix', {}, [], writeMatrix(IDENTITY)),
    new XmlElement('GDTFSpec'),
    new XmlElement('GDTFMode'),
    new XmlElement('FixtureID'),
    new XmlElement('FixtureIDNumeric'),
    new XmlElement('UnitNumber', {}, [], '0'),
    new XmlElement('Addresses'),
  ]);

/** Finds a hanging position or a class of the scene by its name, or adds it; its UUID. */
function auxiliary(root: XmlElement, tag: 'Position' | 'Class', name: string): string {
  const there = [...auxiliaries(root, tag)].find(([, its]) => its === name);
  if (there) return there[0].toUpperCase();
  const uuid = guidOf(`${tag} ${name}`).toUpperCase();
  root.made('Scene').made('AUXData').children.push(new XmlElement(tag, { uuid, name }));
  return uuid;
}

/** Whether an element says these addresses, block by block; `0` and nothing at all are the same. */
function sameAddresses(element: XmlElement, addresses: readonly SlotAddress[]): boolean {
  const said = new Map(
    addressElements(element).map((one, i) => [Number(one.at('break') || i), readMvrAddress(one.text)]),
  );
  if ([...said.values()].includes(undefined)) return false;
  const last = Math.max(addresses.length, ...[...said.keys()].map((block) => block + 1));
  return Array.from({ length: last }, (_, block) => block).every(
    (block) => formatAddress(said.get(block) ?? NO_ADDRESS) === formatAddress(addresses[block] ?? NO_ADDRESS),
  );
}

function writeAddresses(element: XmlElement, addresses: readonly SlotAddress[]): void {
  if (sameAddresses(element, addresses)) return;
  const holder = element.made('Addresses');
  const next = addresses.flatMap((at, i) =>
    isAddressed(at) ? [new XmlElement('Address', { break: String(i) }, [], String(toAbsolute(at)))] : [],
  );
  holder.children = [...next, ...holder.children.filter(({ name }) => name !== 'Address')];
}

/** Its ports on the network (MVR 1.6, Network), where the standard has a place for them. */
function writeNetwork(element: XmlElement, machine: Machine): void {
  const holder = element.made('Addresses');
  holder.children = holder.children.filter(({ name }) => name !== 'Network');
  machine.interfaces.forEach(({ addresses }, i) => {
    for (const { way, address, prefix } of addresses)
      if (address !== '' || way === 'dhcp')
        holder.children.push(
          new XmlElement('Network', {
            geometry: `ethernet_${i + 1}`,
            ...(address !== '' && { ipv4: address, subnetmask: maskText(prefix) }),
            dhcp: way === 'dhcp' ? 'on' : 'off',
          }),
        );
  });
}

const folded = (text: string): string => text.trim().replace(/\s+/g, ' ');

/** Writes what we know of a fixture into its element where that says otherwise; everything else there stays. */
function fillFixture(root: XmlElement, { element, parent }: Pick<Found, 'element' | 'parent'>, out: Outgoing): void {
  const { lamp, spec, addresses, machine } = out;
  const set = (tag: string, is: string, reads: (said: string) => string = (said) => said) => {
    if (reads(element.textOf(tag)) !== is) element.setText(tag, is);
  };
  if (element.at('name').trim() !== lamp.name) element.attributes['name'] = lamp.name;
  const local = readMatrix(element.textOf('Matrix'));
  const world = within(parent, local)[3]!;
  const metres = [lamp.x, lamp.y, lamp.z] as const;
  if (metres.some((one, axis) => Math.round(world[axis]!) !== Math.round(one * 1000))) {
    const [x, y, z] = placeWithin(parent, [lamp.x * 1000, lamp.y * 1000, lamp.z * 1000]).map(
      (number) => Math.round(number * 1000) / 1000,
    ) as [number, number, number];
    element.setText('Matrix', writeMatrix([...local.slice(0, 3), [x, y, z]]));
  }
  if (spec !== undefined) {
    set('GDTFSpec', spec);
    set('GDTFMode', lamp.mode, folded);
  }
  set('FixtureID', lamp.written || String(lamp.number));
  set('FixtureIDNumeric', String(lamp.number));
  set('UnitNumber', lamp.unit || '0', (said) => said || '0');
  set('Function', lamp.function);
  for (const [tag, kind, name] of [
    ['Position', 'Position', lamp.position],
    ['Classing', 'Class', lamp.class],
  ] as const) {
    const known = auxiliaries(root, kind).get(element.textOf(tag).toLowerCase()) ?? '';
    if (known !== name) element.setText(tag, name === '' ? '' : auxiliary(root, kind, name));
  }
  writeAddresses(element, addresses);
  if (machine) writeNetwork(element, machine);
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
  let element = descend(layers, layerName, 'Layer');
  let parent = readMatrix(element.textOf('Matrix'));
  for (const group of groups) {
    element = descend(element.made('ChildList'), group, 'GroupObject');
    parent = within(parent, readMatrix(element.textOf('Matrix')));
  }
  return { list: element.made('ChildList'), parent };
}

type OutRecords = Pick<ShowRecords, 'lamp' | 'type' | 'place'> &
  Partial<Pick<ShowRecords, 'run' | 'machine' | 'model'>>;

/**
 * A show’s rig as an MVR file. `foreign` is the file that the show was taken from: its other parts go out again, fixtures
 * that were never taken over among them. `fileOf` gives the kept file of a type, if there is one.
 */
export function writeMvr(
  { lamp: lamps, type: types, place: places, run: runs = [], machine: machines = [], model: models = [] }: OutRecords,
  fileOf: (type: FixtureType) => Uint8Array | undefined,
  foreign?: Uint8Array,
): Uint8Array {
  const opened = foreign && openScene(foreign);
  const scene = opened?.ok ? opened.value : undefined;
  const root = scene?.root ?? newScene();
  const entries: Record<string, Uint8Array> = { ...scene?.entries };
  const taken = takenOver(entries);
  delete entries[TAKEN];
  // Wherever it stood, it goes out where the standard looks for it.
  if (scene) delete entries[scene.entry];
  const layers = root.made('Scene').made('Layers');

  // Whoever writes a file is its provider.
  Object.assign(root.attributes, { provider: 'Taxiarch', providerVersion: '1' });
  const there = fixturesOf(root);
  const byUuid = new Map<string, Found[]>();
  for (const found of there) byUuid.set(uuidOf(found.element), [...(byUuid.get(uuidOf(found.element)) ?? []), found]);
  const byNumber = new Map(
    there.map((found) => [found.element.textOf('FixtureIDNumeric') || found.element.textOf('FixtureID'), found]),
  );
  const kept = new Set<XmlElement>();
  const foundFor = (lamp: Lamp): Found | undefined => {
    const alike = (byUuid.get(lamp.uuid || guidOf(lamp.id)) ?? []).filter(({ element }) => !kept.has(element));
    const own = alike.find(({ element }) => element.at('name').trim() === lamp.name) ?? alike[0];
    if (own) return own;
    // Whoever left a fixture out means another one by its number.
    const numbered = byNumber.get(String(lamp.number));
    const ours = numbered && !kept.has(numbered.element) && (taken?.has(fixtureKey(numbered.element)) ?? true);
    return ours ? numbered : undefined;
  };

  const files = new TypeFiles(entries);
  const placed = new Map(layRuns(runs, machines).map(({ run, segments }) => [run.id, segments]));
  const ofRuns = runs.map((run) => outgoingRun(run, placed.get(run.id) ?? []));
  const elements = new Map(lamps.map((lamp) => [lamp, foundFor(lamp)]));
  const specOf = new Map<string, string>();
  for (const type of [...types, ...ofRuns.map(({ type }) => type)]) {
    if (type.unknown) continue;
    const its = lamps.find(({ typeId }) => typeId === type.id);
    if (!its && !ofRuns.some((one) => one.type === type)) continue;
    const named = its && elements.get(its)?.element.textOf('GDTFSpec');
    specOf.set(type.id, files.put(type, writeGdtf(type, fileOf(type)), named));
  }
  const modelNames = new Map(models.map((model) => [model.id, model]));
  const machineSpecs = new Map<string, string>();
  const machineSpec = (machine: Machine): string => {
    const model = modelNames.get(machine.modelId ?? '');
    const sheet = { maker: model?.maker ?? 'Taxiarch', name: model?.name ?? machine.kind };
    const key = `${sheet.maker}@${sheet.name} ${machine.interfaces.length}`;
    const known = machineSpecs.get(key);
    if (known !== undefined) return known;
    const spec = files.put(sheet, machineGdtf(sheet, machine.interfaces.length), undefined);
    machineSpecs.set(key, spec);
    return spec;
  };
  const outgoing: Outgoing[] = [
    ...lamps.map((lamp) => ({ lamp, spec: specOf.get(lamp.typeId), addresses: addressesOf(lamp) })),
    ...ofRuns.map(({ lamp, addresses }) => ({ lamp, addresses, spec: specOf.get(lamp.typeId) })),
    ...machines.map((machine, i) => ({
      lamp: outgoingMachine(machine, MACHINES_FROM + i),
      addresses: [],
      spec: machineSpec(machine),
      machine,
    })),
  ];
  const placeName = new Map(places.map(({ id, name }) => [id, name]));
  for (const out of outgoing) {
    const { lamp } = out;
    const found = elements.get(lamp) ?? foundFor(lamp);
    const layer = placeName.get(lamp.placeId ?? '') ?? '';
    const element = found?.element ?? newFixture(out);
    kept.add(element);
    if (found?.layer === layer && found.groups.join('/') === lamp.groups.join('/')) {
      fillFixture(root, found, out);
      continue;
    }
    if (found) found.siblings.without(new Set([element]));
    const { list, parent } = listFor(layers, layer, lamp.groups);
    list.children.push(element);
    fillFixture(root, { element, parent }, out);
  }
  // What was taken over and is in the show no more goes; what was never taken over stays.
  for (const { element, siblings } of there)
    if (!kept.has(element) && (taken?.has(fixtureKey(element)) ?? true)) siblings.without(new Set([element]));
  delete entries[RUNS];
  return makeZip({ ...entries, ...files.written, ...runsEntry(runs), [SCENE]: writeXml(root) });
}
