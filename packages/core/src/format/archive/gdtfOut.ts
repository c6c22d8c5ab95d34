/** GDTF 1.2 (DIN SPEC 15800): a fixture type as it goes out. Parts of a foreign file that we do not use are kept. */
import equal from 'fast-deep-equal';
import { attributeLabel, blockOf, channelMaximum } from '../../fixture';
import type { FixtureChannel, FixtureMode, FixtureType } from '../../records';
import { DESCRIPTION, guessKind, readMode } from './gdtf';
import { guidOf } from './guid';
import { makeZip, openZip } from './zip';
import { readXml, writeXml, XmlElement } from './xml';

const dmxValue = (value: number, bytes: number): string => `${value}/${bytes}`;

/** Channel sets for named values; what lies between two of them becomes a set without a name. */
function setsOf(channel: FixtureChannel): XmlElement[] {
  const bytes = channel.offsets.length;
  const sets: XmlElement[] = [];
  let next = 0;
  const set = (name: string, from: number) =>
    sets.push(new XmlElement('ChannelSet', { Name: name, DMXFrom: dmxValue(from, bytes) }));
  for (const { name, from, to } of [...(channel.ranges ?? [])].sort((a, b) => a.from - b.from)) {
    if (from > next) set('', next);
    set(name, from);
    next = to + 1;
  }
  if (next > 0 && next <= channelMaximum(channel)) set('', next);
  return sets;
}

const BODY = 'Body';
const cellName = (cell: number): string => `Cell ${cell}`;

function channelElement(channel: FixtureChannel, geometry: string): XmlElement {
  const bytes = channel.offsets.length;
  const { attribute } = channel;
  const functionName = `${attribute} 1`;
  const made = new XmlElement(
    'ChannelFunction',
    {
      Name: functionName,
      Attribute: attribute,
      DMXFrom: '0/1',
      Default: dmxValue(channel.default, bytes),
      PhysicalFrom: '0',
      PhysicalTo: '1',
    },
    setsOf(channel),
  );
  return new XmlElement(
    'DMXChannel',
    {
      DMXBreak: String(blockOf(channel)),
      Offset: channel.offsets.join(','),
      Highlight: dmxValue(channel.highlight, bytes),
      Geometry: geometry,
      InitialFunction: `${geometry}_${attribute}.${attribute}.${functionName}`,
    },
    [new XmlElement('LogicalChannel', { Attribute: attribute }, [made])],
  );
}

const cellsOf = (modes: readonly FixtureMode[]): number =>
  Math.max(0, ...modes.flatMap(({ channels }) => channels.map(({ cell = 0 }) => cell)));

const modeElement = (mode: FixtureMode, root: string): XmlElement =>
  new XmlElement('DMXMode', { Name: mode.name, Geometry: root }, [
    new XmlElement(
      'DMXChannels',
      {},
      mode.channels.map((channel) =>
        channelElement(channel, channel.cell === undefined ? root : cellName(channel.cell)),
      ),
    ),
    new XmlElement('Relations'),
    new XmlElement('FTMacros'),
  ]);

const bodyElement = (name: string, cells: number): XmlElement =>
  new XmlElement(
    'Geometry',
    { Name: name, Position: '{1,0,0,0}{0,1,0,0}{0,0,1,0}{0,0,0,1}' },
    Array.from(
      { length: cells },
      (_, i) => new XmlElement('Geometry', { Name: cellName(i + 1), Position: '{1,0,0,0}{0,1,0,0}{0,0,1,0}{0,0,0,1}' }),
    ),
  );

function attributeElements(modes: readonly FixtureMode[]): XmlElement {
  const names = [...new Set(modes.flatMap(({ channels }) => channels.map(({ attribute }) => attribute)))];
  return new XmlElement('AttributeDefinitions', {}, [
    new XmlElement('ActivationGroups'),
    new XmlElement('FeatureGroups', {}, [
      new XmlElement('FeatureGroup', { Name: 'Control', Pretty: 'Control' }, [
        new XmlElement('Feature', { Name: 'Control' }),
      ]),
    ]),
    new XmlElement(
      'Attributes',
      {},
      names.map(
        (name) =>
          new XmlElement('Attribute', {
            Name: name,
            Pretty: attributeLabel(name),
            Feature: 'Control.Control',
            PhysicalUnit: 'None',
          }),
      ),
    ),
  ]);
}

function newDescription(type: FixtureType): XmlElement {
  const attributes = {
    Name: type.name,
    ShortName: type.name,
    LongName: `${type.maker} ${type.name}`,
    Manufacturer: type.maker,
    Description: `kind: ${type.kind}`,
    FixtureTypeID: guidOf(type.id).toUpperCase(),
    Thumbnail: '',
    RefFT: '',
    CanHaveChildren: 'No',
  };
  return new XmlElement('GDTF', { DataVersion: '1.2' }, [
    new XmlElement('FixtureType', attributes, [
      attributeElements(type.modes),
      new XmlElement('Wheels'),
      new XmlElement('PhysicalDescriptions'),
      new XmlElement('Models'),
      new XmlElement('Geometries', {}, [bodyElement(BODY, cellsOf(type.modes))]),
      new XmlElement(
        'DMXModes',
        {},
        type.modes.map((mode) => modeElement(mode, BODY)),
      ),
      new XmlElement('Revisions'),
      new XmlElement('FTPresets'),
      new XmlElement('Protocols'),
    ]),
  ]);
}

/** Puts our modes into a foreign description: modes that are as they were keep everything that stands in them. */
function patchDescription(root: XmlElement, type: FixtureType): void {
  const element = root.child('FixtureType')!;
  const geometries = element.child('Geometries');
  element.attributes['Name'] = type.name;
  element.attributes['Manufacturer'] = type.maker;
  if (guessKind(element.at('Description'), type.modes) !== type.kind)
    element.attributes['Description'] =
      `${element.at('Description').replace(/\s*\bkind: \w+/, '')} kind: ${type.kind}`.trim();
  const modes = element.child('DMXModes');
  const old = modes?.all('DMXMode') ?? [];
  const name = 'Taxiarch body';
  let made = false;
  const next = type.modes.map((mode) => {
    const kept = old.find((one) => {
      const was = readMode(one, geometries?.children ?? []);
      return was.ok && equal(was.value, mode);
    });
    if (kept) return kept;
    made = true;
    return modeElement(mode, name);
  });
  // Modes without channels are none of ours, and stay.
  const empty = old.filter((one) => (one.child('DMXChannels')?.children.length ?? 0) === 0);
  if (modes) modes.children = [...next, ...empty];
  else element.children.push(new XmlElement('DMXModes', {}, next));
  if (made) {
    const body = bodyElement(name, cellsOf(type.modes));
    if (!geometries) element.children.push(new XmlElement('Geometries', {}, [body]));
    else geometries.children = [...geometries.children.filter((one) => one.at('Name') !== name), body];
  }
}

/** A type as a GDTF file; `foreign` is the file that it was taken from, whose other parts go out again. */
export function writeGdtf(type: FixtureType, foreign?: Uint8Array): Uint8Array {
  const entries = foreign && openZip(foreign);
  const description = entries?.ok ? entries.value[DESCRIPTION] : undefined;
  const xml = description && readXml(description, 'The description');
  if (!entries?.ok || !xml?.ok || !xml.value.child('FixtureType'))
    return makeZip({ [DESCRIPTION]: writeXml(newDescription(type)) });
  patchDescription(xml.value, type);
  return makeZip({ ...entries.value, [DESCRIPTION]: writeXml(xml.value) });
}

/** The name under which a type's file goes into an archive. */
export const gdtfName = ({ maker, name }: Pick<FixtureType, 'maker' | 'name'>): string =>
  `${`${maker}@${name}`.replace(/[\\/:*?"<>|]/g, '_')}.gdtf`;
