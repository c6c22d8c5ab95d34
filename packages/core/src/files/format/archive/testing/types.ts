/** GDTF files as other programs write them. */
import { strToU8 } from 'fflate';
import { makeZip, openZip, readGdtf } from '..';

export const typeFrom = (bytes: Uint8Array) => {
  const type = readGdtf(bytes);
  if (!type.ok) throw new Error(type.why);
  return type.value.type;
};

/** A foreign file: cells by geometry references in a block of their own, wheels, a picture, two functions. */
export const FOREIGN = `<?xml version="1.0" encoding="UTF-8"?>
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

export const foreign = makeZip({ 'description.xml': strToU8(FOREIGN), 'thumbnail.png': Uint8Array.of(1, 2, 3) });

export const described = (bytes: Uint8Array) => {
  const entries = openZip(bytes);
  return entries.ok ? new TextDecoder().decode(entries.value['description.xml']) : '';
};

export const channel = (attributes: string, attribute = 'Dimmer', inside = '') =>
  `<DMXChannel ${attributes}><LogicalChannel Attribute="${attribute}"><ChannelFunction Name="F" Attribute="${attribute}" DMXFrom="0/1" Default="0/1">${inside}</ChannelFunction></LogicalChannel></DMXChannel>`;
