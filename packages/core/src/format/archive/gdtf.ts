/** GDTF 1.2 (DIN SPEC 15800): a fixture type as it comes in; how it goes out is in gdtfOut.ts. */
import { SLOTS } from '../../address';
import { ok, refuse, type Result } from '../../result';
import { blockOf, modeFault } from '../../fixture';
import {
  FIXTURE_KINDS,
  type FixtureChannel,
  type FixtureKind,
  type FixtureMode,
  type FixtureType,
  type ValueRange,
} from '../../records';
import { guidOf, isGuid } from './guid';
import { openZip } from './zip';
import { readXml, XmlElement } from './xml';

/** The entry of the archive that describes the type */
export const DESCRIPTION = 'description.xml';

/** `255/1`, `65535/2`, `255/1s` as a value of a channel with `bytes` bytes (DIN SPEC 15800, DMXValue). */
export function readDmxValue(text: string, bytes: number): number | undefined {
  const match = /^(\d+)\/([1-4])(s?)$/.exec(text.trim());
  if (!match) return undefined;
  const given = Number(match[2]);
  const value = Math.min(Number(match[1]), 256 ** given - 1);
  if (given >= bytes) return Math.floor(value / 256 ** (given - bytes));
  if (match[3] === 's') return value * 256 ** (bytes - given);
  // Without the s the bytes are mirrored: 255/1 of sixteen bits is 65535.
  let mirrored = 0;
  for (let i = 0; i < bytes; i += 1)
    mirrored = mirrored * 256 + (Math.floor(value / 256 ** (given - 1 - (i % given))) % 256);
  return mirrored;
}

interface Reference {
  /** Names of the geometries within the one that is referred to */
  readonly within: ReadonlySet<string>;
  readonly breaks: readonly { readonly block: number; readonly offset: number }[];
  /** Which reference to the same geometry, from 1 */
  readonly cell: number;
}

const namesWithin = (geometry: XmlElement): string[] => [
  geometry.at('Name'),
  ...geometry.children.flatMap(namesWithin),
];

/** References in a mode's geometry, in the order of the document. */
function referencesOf(root: XmlElement, top: readonly XmlElement[]): Reference[] {
  const counts = new Map<string, number>();
  const references: Reference[] = [];
  const look = (geometry: XmlElement) => {
    if (geometry.name === 'GeometryReference') {
      const target = geometry.at('Geometry');
      const cell = (counts.get(target) ?? 0) + 1;
      counts.set(target, cell);
      const found = top.find((one) => one.at('Name') === target);
      references.push({
        within: new Set(found ? namesWithin(found) : [target]),
        breaks: geometry.all('Break').map((one) => ({
          block: Number(one.at('DMXBreak') || 1),
          offset: Number(one.at('DMXOffset') || 1),
        })),
        cell,
      });
    }
    geometry.children.forEach(look);
  };
  look(root);
  return references;
}

/** Named values of a channel: its channel sets, or its functions where those have none. */
function rangesOf(functions: readonly XmlElement[], bytes: number): ValueRange[] {
  const maximum = 256 ** bytes - 1;
  const marks: { name: string; from: number }[] = [];
  for (const one of functions) {
    const start = readDmxValue(one.at('DMXFrom') || '0/1', bytes) ?? 0;
    const sets = one.all('ChannelSet');
    if (sets.length === 0 && functions.length > 1) marks.push({ name: one.at('Name'), from: start });
    else if (sets.length > 0 && (readDmxValue(sets[0]!.at('DMXFrom'), bytes) ?? 0) > start)
      marks.push({ name: '', from: start });
    for (const set of sets)
      marks.push({ name: set.at('Name').trim(), from: readDmxValue(set.at('DMXFrom'), bytes) ?? 0 });
  }
  marks.sort((a, b) => a.from - b.from);
  return marks.flatMap(({ name, from }, i) => {
    const to = (marks[i + 1]?.from ?? maximum + 1) - 1;
    return name === '' || to < from ? [] : [{ name, from, to }];
  });
}

function channelsOf(channel: XmlElement, references: readonly Reference[]): Result<FixtureChannel[]> {
  const offsetText = channel.at('Offset').trim();
  // A virtual channel takes no slot.
  if (offsetText === '' || offsetText === 'None') return ok([]);
  const offsets = offsetText.split(',').map(Number);
  const all = channel.all('LogicalChannel').flatMap((logical) => logical.all('ChannelFunction'));
  const logical = channel.child('LogicalChannel');
  const attribute = logical?.at('Attribute') || all[0]?.at('Attribute') || 'NoFeature';
  if (offsets.length > 4 || offsets.some((offset) => !Number.isInteger(offset) || offset < 1 || offset > SLOTS))
    return refuse(
      'not-understood',
      `The channel ${attribute} has offsets that cannot be: “${offsetText.slice(0, 40)}”.`,
    );
  // The fourth byte of 32-bit channels is beyond what we resolve.
  const used = offsets.slice(0, 3);
  const bytes = used.length;
  const initial = all.find((one) => channel.at('InitialFunction').endsWith(`.${one.at('Name')}`)) ?? all[0];
  const value = readDmxValue(initial?.at('Default') || channel.at('Default'), bytes) ?? 0;
  const ranges = rangesOf(all, bytes);
  const geometry = channel.at('Geometry');
  const base = {
    attribute,
    default: value,
    highlight: readDmxValue(channel.at('Highlight'), bytes) ?? value,
    ...(ranges.length > 0 && { ranges }),
  };
  const placed = (block: number, shift: number, cell: number | undefined): FixtureChannel => ({
    ...base,
    offsets: used.map((offset) => offset + shift),
    ...(cell !== undefined && { cell }),
    ...(block > 1 && { block }),
  });
  const overwrite = channel.at('DMXBreak') === 'Overwrite';
  const own = overwrite ? 1 : Number(channel.at('DMXBreak') || 1);
  const here = references.filter(({ within }) => within.has(geometry));
  if (here.length === 0) {
    const numbered = /^Cell (\d+)$/.exec(geometry);
    return ok([placed(own, 0, numbered ? Number(numbered[1]) : undefined)]);
  }
  return ok(
    here.map(({ breaks, cell }) => {
      const found = overwrite ? breaks[breaks.length - 1] : (breaks.find(({ block }) => block === own) ?? breaks[0]);
      return placed(found?.block ?? own, (found?.offset ?? 1) - 1, cell);
    }),
  );
}

export function readMode(mode: XmlElement, geometries: readonly XmlElement[]): Result<FixtureMode> {
  const root = geometries.find((one) => one.at('Name') === mode.at('Geometry'));
  const references = root ? referencesOf(root, geometries) : [];
  const channels: FixtureChannel[] = [];
  for (const channel of mode.child('DMXChannels')?.all('DMXChannel') ?? []) {
    const some = channelsOf(channel, references);
    if (!some.ok) return some;
    channels.push(...some.value);
  }
  channels.sort((a, b) => blockOf(a) - blockOf(b) || a.offsets[0]! - b.offsets[0]!);
  const made = { name: mode.at('Name').trim(), channels };
  const fault = channels.length === 0 ? undefined : modeFault(made);
  return fault === undefined ? ok(made) : refuse('not-possible', fault);
}

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

/** The fixture type in a GDTF file. Its `file` is left null: who keeps the bytes says under what name. */
export function readGdtf(bytes: Uint8Array): Result<FixtureType> {
  const entries = openZip(bytes);
  if (!entries.ok) return entries;
  const description = entries.value[DESCRIPTION];
  if (!description) return refuse('not-understood', 'The archive holds no description.xml, so it is no GDTF file.');
  const xml = readXml(description, 'The description of the type');
  if (!xml.ok) return xml;
  const type = xml.value.child('FixtureType');
  if (xml.value.name !== 'GDTF' || !type) return refuse('not-understood', 'The description holds no fixture type.');
  const geometries = type.child('Geometries')?.children ?? [];
  const modes: FixtureMode[] = [];
  for (const element of type.child('DMXModes')?.all('DMXMode') ?? []) {
    const mode = readMode(element, geometries);
    if (!mode.ok) return mode;
    if (mode.value.channels.length > 0) modes.push(mode.value);
  }
  const name = (type.at('Name') || type.at('LongName') || type.at('ShortName')).trim();
  if (name === '') return refuse('not-understood', 'The fixture type has no name.');
  if (modes.length === 0) return refuse('not-understood', `${name} has no mode with channels.`);
  const id = type.at('FixtureTypeID');
  return ok({
    id: isGuid(id) ? id.toLowerCase() : guidOf(`${type.at('Manufacturer')} ${name}`),
    rev: 0,
    maker: type.at('Manufacturer').trim() || 'Unknown maker',
    name,
    kind: guessKind(type.at('Description'), modes),
    file: null,
    modes,
  });
}
