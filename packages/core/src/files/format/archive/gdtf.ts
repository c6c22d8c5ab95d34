/** GDTF 1.0 to 1.2 (DIN SPEC 15800): a fixture type as it comes in; how it goes out is in gdtfOut.ts. */
import { ok, refuse, type Result } from '../../../base/result';
import { FIXTURE_KINDS, PLAIN_TYPE, type FixtureKind, type FixtureMode, type FixtureType } from '../../../show/records';
import { channelElements, functionsOf, partsOf, readMode } from './gdtfMode';
import { fitted, guidOf, isGuid, NO_MAKER } from '../../arrival';
import { entryNamed, openZip, type Entries } from './zip';
import { ASSUMED } from './gdtfWords';
import { readXml, type XmlElement } from './xml';

/** The entry of the archive that describes the type */
export const DESCRIPTION = 'description.xml';

/** As which it stands where a file names no maker */

export function guessKind(description: string, modes: readonly FixtureMode[]): FixtureKind {
  const said = /\bkind: (\w+)/.exec(description)?.[1];
  const known = FIXTURE_KINDS.find((kind) => kind === said);
  if (known) return known;
  const has = (name: string) =>
    modes.some(({ channels }) => channels.some(({ attribute }) => attribute.startsWith(name)));
  if (has('Fog')) return 'hazer';
  if (has('Fan')) return 'fan';
  if (has('Media')) return 'media';
  if (has('Pan')) return has('Gobo') ? 'spot' : 'wash';
  const cells = Math.max(0, ...modes.flatMap(({ channels }) => channels.map(({ cell = 0 }) => cell)));
  if (cells > 24) return 'panel';
  if (cells > 1) return 'batten';
  if (has('ColorAdd') || has('ColorRGB')) return 'par';
  return has('Dimmer') ? 'dimmer' : 'other';
}

/** What a description says of the type as a whole, as we keep it. */
export interface TypeSaid extends Pick<FixtureType, 'maker' | 'name' | 'kind' | 'pan' | 'tilt' | 'beam' | 'field'> {}

function* within(geometries: readonly XmlElement[]): Generator<XmlElement> {
  for (const one of geometries) {
    yield one;
    yield* within(one.children);
  }
}

export const beamsOf = (type: XmlElement): XmlElement[] =>
  [...within(type.child('Geometries')?.children ?? [])].filter(({ name }) => name === 'Beam');

/** Functions of the channels that carry an attribute, in all modes */
export const functionsFor = (type: XmlElement, attribute: string): XmlElement[] =>
  (type.child('DMXModes')?.all('DMXMode') ?? [])
    .flatMap((mode) => channelElements(mode).flatMap(functionsOf))
    .filter((one) => one.at('Attribute') === attribute);

const degrees = (text: string): number => {
  const number = Number(text);
  return text === '' || !Number.isFinite(number) || number < 0 ? 0 : Math.round(number * 100) / 100;
};

/** How far it moves by an attribute, in degrees; 0 where no function says, or says only that it moves. */
function travel(type: XmlElement, attribute: string): number {
  const said = functionsFor(type, attribute).filter((one) => !one.at('Name').endsWith(ASSUMED));
  const spans = said.map((one) =>
    degrees(String(Math.abs(Number(one.at('PhysicalTo')) - Number(one.at('PhysicalFrom'))))),
  );
  const most = Math.max(0, ...spans);
  return most <= 1 || most > 3600 ? 0 : most;
}

const angle = (type: XmlElement, attribute: string): number =>
  Math.min(
    180,
    degrees(
      beamsOf(type)
        .find((one) => one.at(attribute) !== '')
        ?.at(attribute) ?? '',
    ),
  );

/** What a description says of its type. */
export function saidOf(type: XmlElement, modes: readonly FixtureMode[]): TypeSaid {
  return {
    maker: fitted(type.at('Manufacturer')) || NO_MAKER,
    name: fitted(type.at('Name')) || fitted(type.at('LongName')) || fitted(type.at('ShortName')),
    kind: guessKind(type.at('Description'), modes),
    pan: travel(type, 'Pan'),
    tilt: travel(type, 'Tilt'),
    beam: angle(type, 'BeamAngle'),
    field: angle(type, 'FieldAngle'),
  };
}

/** The description within an archive, whatever the capitals of its name. */
export function openDescription(entries: Entries): Result<{ entry: string; root: XmlElement; type: XmlElement }> {
  const entry = entryNamed(entries, DESCRIPTION);
  if (entry === undefined)
    return refuse('not-understood', 'The archive holds no description.xml, so it is no GDTF file.');
  const xml = readXml(entries[entry]!, 'The description of the type');
  if (!xml.ok) return xml;
  const type = xml.value.child('FixtureType');
  if (xml.value.name !== 'GDTF' || !type) return refuse('not-understood', 'The description holds no fixture type.');
  return ok({ entry, root: xml.value, type });
}

export const modeElements = (type: XmlElement): readonly XmlElement[] => type.child('DMXModes')?.all('DMXMode') ?? [];

/** The modes that can be read, each under a name of its own with its element, and of the others why they cannot. */
export function readModes(type: XmlElement): { modes: { mode: FixtureMode; element: XmlElement }[]; notes: string[] } {
  const parts = partsOf(type);
  const modes: { mode: FixtureMode; element: XmlElement }[] = [];
  const notes: string[] = [];
  const names = new Set<string>();
  for (const element of modeElements(type)) {
    const read = readMode(element, parts);
    if (!read.ok) notes.push(`Mode “${fitted(element.at('Name'))}” is left out: ${read.why}`);
    // Machines without light have modes without channels; no lamp can be in one.
    if (!read.ok || read.value.channels.length === 0) continue;
    let { name } = read.value;
    for (let i = 2; names.has(name); i += 1) name = `${fitted(read.value.name, 110)} (${i})`;
    if (name !== read.value.name) notes.push(`A further mode “${read.value.name}” is called “${name}” here.`);
    names.add(name);
    modes.push({ mode: { ...read.value, name }, element });
  }
  return { modes, notes };
}

export interface GdtfContent {
  /** Its `file` is left null: who keeps the bytes says under what name. */
  readonly type: FixtureType;
  /** What was left out or is called otherwise, in sentences */
  readonly notes: readonly string[];
}

/** The fixture type in a GDTF file. A faulty mode is left out by name; without any sound one the file is refused. */
export function readGdtf(bytes: Uint8Array): Result<GdtfContent> {
  const entries = openZip(bytes);
  if (!entries.ok) return entries;
  const description = openDescription(entries.value);
  if (!description.ok) return description;
  const { type } = description.value;
  const { modes: read, notes } = readModes(type);
  const modes = read.map(({ mode }) => mode);
  const said = saidOf(type, modes);
  if (said.name === '') return refuse('not-understood', 'The fixture type has no name.');
  if (modes.length === 0) {
    // A machine of the network, say, which is no lamp.
    if (notes.length === 0) return refuse('nothing', `${said.name} has no mode with channels.`);
    return refuse('not-understood', notes[0]!);
  }
  const id = type.at('FixtureTypeID').trim();
  return ok({
    type: {
      ...PLAIN_TYPE,
      ...said,
      id: isGuid(id) ? id.toLowerCase() : guidOf(`${said.maker} ${said.name}`),
      rev: 0,
      // DIN SPEC 15800, FTRDMInfo: what its fixtures say of themselves by RDM.
      answers: type.child('Protocols')?.child('FTRDMInfo') ? 'yes' : 'not known',
      file: null,
      modes,
    },
    notes,
  });
}
