import { strToU8 } from 'fflate';
import { blocksOf } from '../../../rig/fixture';
import { LIBRARY } from '../../../rig/library';
import { guidOf, isGuid } from '../../arrival';
import { makeZip, openZip, readDmxValue, readGdtf, writeGdtf } from '.';
import { typeFrom, FOREIGN, foreign, described, channel } from './testing/types';

test('a file that says what its fixtures answer by RDM tells that they do', () => {
  const answering = FOREIGN.replace(
    '</FixtureType>',
    '<Protocols><FTRDMInfo ManufacturerID="0x7ff1" DeviceModelID="0x1"/></Protocols></FixtureType>',
  );
  const read = (xml: string) => typeFrom(makeZip({ 'description.xml': strToU8(xml) })).answers;
  expect([read(answering), read(FOREIGN)]).toEqual(['yes', 'not known']);
});

test.each(LIBRARY.map((type) => [`${type.maker} ${type.name}`, type] as const))(
  '%s goes out and comes in equal',
  (_, type) => {
    // Whether its fixtures answer is told by what they say of themselves, which a library does not know.
    expect({ ...typeFrom(writeGdtf(type)), id: type.id }).toEqual({ ...type, answers: 'not known' });
  },
);

test('a foreign file: blocks, cells by reference, functions, sets and defaults', () => {
  const type = typeFrom(foreign);
  expect(type).toMatchObject({ id: '0f0e0d0c-0b0a-4908-8706-050403020100', maker: 'Tern', name: 'Wheelhouse & Co 4' });
  const [mode] = type.modes;
  expect(blocksOf(mode!)).toEqual([3, 5]);
  expect(
    mode!.channels.map(({ attribute, offsets, block = 1, cell, default: value, highlight }) => [
      attribute,
      offsets,
      block,
      cell,
      value,
      highlight,
    ]),
  ).toEqual([
    ['Dimmer', [1, 2], 1, undefined, 0x8080, 65535],
    ['Shutter1', [3], 1, undefined, 255, 255],
    ['ColorAdd_R', [1], 2, 1, 0, 255],
    ['ColorAdd_G', [2], 2, 1, 0, 255],
    ['ColorAdd_R', [4], 2, 2, 0, 255],
    ['ColorAdd_G', [5], 2, 2, 0, 255],
  ]);
  expect(mode!.channels[1]!.ranges).toEqual([
    { name: 'closed', from: 0, to: 19 },
    { name: 'Flash', from: 20, to: 199 },
    { name: 'open', from: 200, to: 255 },
  ]);
});

test('parts that we do not use survive, beside modes that were changed and modes that were not', () => {
  const type = typeFrom(foreign);
  const more = { ...type, modes: [...type.modes, { name: 'One', channels: [type.modes[0]!.channels[0]!] }] };
  const out = writeGdtf(more, foreign);
  const text = described(out);
  for (const part of ['Sea green', 'Emitter', 'GeometryReference', 'FTMacro', 'Pretty="Dim"'])
    expect(text).toContain(part);
  const entries = openZip(out);
  expect(entries.ok && entries.value['thumbnail.png']).toEqual(Uint8Array.of(1, 2, 3));
  expect(typeFrom(out)).toEqual(more);
  expect(typeFrom(writeGdtf(type, foreign))).toEqual(type);
});

test('values of fewer bytes are mirrored, or shifted where it says so', () => {
  expect([
    readDmxValue('255/1', 2),
    readDmxValue('255/1s', 2),
    readDmxValue('65535/2', 1),
    readDmxValue('1/2', 3),
    readDmxValue('x', 1),
  ]).toEqual([65535, 65280, 255, 0x000100, undefined]);
});

test('ids become identifiers, always the same, and keep those that they are', () => {
  expect(isGuid(guidOf('type-spot-16'))).toBe(true);
  expect(guidOf('type-spot-16')).toBe(guidOf('type-spot-16'));
  expect(new Set(LIBRARY.map(({ id }) => guidOf(id))).size).toBe(LIBRARY.length);
});

/** A description with one mode of the given channels and geometries. */
const one = (channels: string, geometries = '<Geometry Name="Base"/>', more = '') =>
  makeZip({
    'Description.XML': strToU8(
      `<GDTF DataVersion="1.1"><FixtureType Name="T" Manufacturer="M" Description="" FixtureTypeID="0f0e0d0c-0b0a-4908-8706-050403020100"><Geometries>${geometries}</Geometries><DMXModes><DMXMode Name="A" Geometry="Base"><DMXChannels>${channels}</DMXChannels></DMXMode>${more}</DMXModes></FixtureType></GDTF>`,
    ),
  });

const contentOf = (bytes: Uint8Array) => {
  const content = readGdtf(bytes);
  if (!content.ok) throw new Error(content.why);
  return content.value;
};

test('channels of four bytes keep all four slots', () => {
  const [dimmer] = typeFrom(one(channel('Offset="4,3,2,1" Geometry="Base" Highlight="4294967295/4"'))).modes[0]!
    .channels;
  expect(dimmer).toMatchObject({ offsets: [4, 3, 2, 1], highlight: 4294967295 });
  expect(
    readGdtf(one(channel('Offset="1,2,3,4" Geometry="Base"') + channel('Offset="4" Geometry="Base"', 'Pan'))),
  ).toMatchObject({ ok: false });
});

test('a file of version 1.0 says the bytes apart, and values without their size', () => {
  const [dimmer] = typeFrom(one(channel('Coarse="1" Fine="2" Ultra="None" Geometry="Base" Highlight="65535"')))
    .modes[0]!.channels;
  expect(dimmer).toMatchObject({ offsets: [1, 2], highlight: 65535 });
});

test('references within references: each cell lies where both of its references say', () => {
  const type = typeFrom(
    one(
      channel('DMXBreak="1" Offset="1" Geometry="Pixel"', 'ColorAdd_R') +
        channel('DMXBreak="1" Offset="2" Geometry="Pixel"', 'ColorAdd_G'),
      `<Geometry Name="Base">
         <GeometryReference Name="R1" Geometry="Row"><Break DMXBreak="1" DMXOffset="1"/></GeometryReference>
         <GeometryReference Name="R2" Geometry="Row"><Break DMXBreak="1" DMXOffset="11"/></GeometryReference>
       </Geometry>
       <Geometry Name="Row">
         <GeometryReference Name="P1" Geometry="Pixel"><Break DMXBreak="1" DMXOffset="1"/></GeometryReference>
         <GeometryReference Name="P2" Geometry="Pixel"><Break DMXBreak="1" DMXOffset="3"/></GeometryReference>
       </Geometry>
       <Beam Name="Pixel"/>`,
    ),
  );
  expect(type.modes[0]!.channels.map(({ attribute, cell, offsets }) => [attribute, cell, offsets[0]])).toEqual([
    ['ColorAdd_R', 1, 1],
    ['ColorAdd_G', 1, 2],
    ['ColorAdd_R', 2, 3],
    ['ColorAdd_G', 2, 4],
    ['ColorAdd_R', 3, 11],
    ['ColorAdd_G', 3, 12],
    ['ColorAdd_R', 4, 13],
    ['ColorAdd_G', 4, 14],
  ]);
});

test('where no highlight is said, what lights the lamp is worked out from its attribute', () => {
  const highlight = (attribute: string, inside = '') =>
    typeFrom(one(channel('Offset="1" Geometry="Base"', attribute, inside))).modes[0]!.channels[0]!.highlight;
  expect([highlight('Dimmer'), highlight('ColorAdd_R'), highlight('Pan'), highlight('ColorSub_C')]).toEqual([
    255, 255, 0, 0,
  ]);
  expect(
    highlight('Shutter1', '<ChannelSet Name="Closed" DMXFrom="0/1"/><ChannelSet Name="Open" DMXFrom="32/1"/>'),
  ).toBe(32);
});

test('a faulty mode is left out by name, and the others stay; names and letters come as they are', () => {
  const { type, notes } = contentOf(
    one(
      channel('Offset="1" Geometry="Base"'),
      '<Geometry Name="Base"/>',
      `<DMXMode Name="Caf&#233; &#x26; Bar" Geometry="Base"><DMXChannels>${channel('Offset="1" Geometry="Base"')}</DMXChannels></DMXMode>
       <DMXMode Name="Broken" Geometry="Base"><DMXChannels>${channel('Offset="900" Geometry="Base"')}</DMXChannels></DMXMode>
       <DMXMode Name="A" Geometry="Base"><DMXChannels>${channel('Offset="2" Geometry="Base"')}</DMXChannels></DMXMode>`,
    ),
  );
  expect(type.modes.map(({ name }) => name)).toEqual(['A', 'Café & Bar', 'A (2)']);
  expect(notes).toEqual([
    expect.stringMatching(/^Mode “Broken” is left out: .*900/),
    'A further mode “A” is called “A (2)” here.',
  ]);
});
