import { strToU8 } from 'fflate';
import { blocksOf } from '../../fixture';
import { LIBRARY } from '../../library';
import { guidOf, isGuid, makeZip, openZip, readDmxValue, readGdtf, writeGdtf } from '.';

const typeFrom = (bytes: Uint8Array) => {
  const type = readGdtf(bytes);
  if (!type.ok) throw new Error(type.why);
  return type.value;
};

/** A foreign file: cells by geometry references in a block of their own, wheels, a picture, two functions. */
const FOREIGN = `<?xml version="1.0" encoding="UTF-8"?>
<GDTF DataVersion="1.2">
  <FixtureType Name="Wheelhouse &amp; Co 4" ShortName="W4" LongName="" Manufacturer="Tern" Description="" FixtureTypeID="0F0E0D0C-0B0A-4908-8706-050403020100">
    <AttributeDefinitions><Attributes><Attribute Name="Dimmer" Pretty="Dim" Feature="Dimmer.Dimmer"/></Attributes></AttributeDefinitions>
    <Wheels><Wheel Name="Glass"><Slot Name="Sea green" Color="0.3,0.6,30"/></Wheel></Wheels>
    <PhysicalDescriptions><Emitters><Emitter Name="Red" Color="0.6,0.3,20"/></Emitters></PhysicalDescriptions>
    <Geometries>
      <Geometry Name="Base">
        <GeometryReference Name="Left" Geometry="Pixel"><Break DMXBreak="2" DMXOffset="1"/></GeometryReference>
        <GeometryReference Name="Right" Geometry="Pixel"><Break DMXBreak="2" DMXOffset="4"/></GeometryReference>
      </Geometry>
      <Beam Name="Pixel"/>
    </Geometries>
    <DMXModes>
      <DMXMode Name="Cells" Geometry="Base">
        <DMXChannels>
          <DMXChannel DMXBreak="1" Offset="1,2" Highlight="65535/2" Geometry="Base" InitialFunction="Base_Dimmer.Dimmer.Dim">
            <LogicalChannel Attribute="Dimmer"><ChannelFunction Name="Dim" Attribute="Dimmer" DMXFrom="0/1" Default="128/1"/></LogicalChannel>
          </DMXChannel>
          <DMXChannel DMXBreak="1" Offset="3" Highlight="None" Geometry="Base" InitialFunction="Base_Shutter1.Shutter1.Open">
            <LogicalChannel Attribute="Shutter1">
              <ChannelFunction Name="Shut" Attribute="Shutter1" DMXFrom="0/1" Default="0/1"><ChannelSet Name="closed" DMXFrom="0/1"/></ChannelFunction>
              <ChannelFunction Name="Flash" Attribute="Shutter1Strobe" DMXFrom="20/1" Default="20/1"/>
              <ChannelFunction Name="Open" Attribute="Shutter1" DMXFrom="200/1" Default="255/1"><ChannelSet Name="open" DMXFrom="200/1"/></ChannelFunction>
            </LogicalChannel>
          </DMXChannel>
          <DMXChannel DMXBreak="1" Offset="" Geometry="Base"><LogicalChannel Attribute="Pan"/></DMXChannel>
          <DMXChannel DMXBreak="2" Offset="1" Highlight="255/1" Geometry="Pixel"><LogicalChannel Attribute="ColorAdd_R"><ChannelFunction Name="R" Attribute="ColorAdd_R" DMXFrom="0/1" Default="0/1"/></LogicalChannel></DMXChannel>
          <DMXChannel DMXBreak="Overwrite" Offset="2" Highlight="255/1" Geometry="Pixel"><LogicalChannel Attribute="ColorAdd_G"><ChannelFunction Name="G" Attribute="ColorAdd_G" DMXFrom="0/1" Default="0/1"/></LogicalChannel></DMXChannel>
        </DMXChannels>
        <FTMacros><FTMacro Name="Reset"/></FTMacros>
      </DMXMode>
    </DMXModes>
  </FixtureType>
</GDTF>`;
const foreign = makeZip({ 'description.xml': strToU8(FOREIGN), 'thumbnail.png': Uint8Array.of(1, 2, 3) });
const described = (bytes: Uint8Array) => {
  const entries = openZip(bytes);
  return entries.ok ? new TextDecoder().decode(entries.value['description.xml']) : '';
};

test.each(LIBRARY.map((type) => [`${type.maker} ${type.name}`, type] as const))(
  '%s goes out and comes in equal',
  (_, type) => {
    expect({ ...typeFrom(writeGdtf(type)), id: type.id }).toEqual(type);
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
