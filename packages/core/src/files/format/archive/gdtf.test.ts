import fc from 'fast-check';
import { strToU8 } from 'fflate';
import { blocksOf } from '../../../rig/fixture';
import type { FixtureChannel, FixtureType } from '../../../show/records';
import { LIBRARY } from '../../../rig/library';
import { guidOf, isGuid } from '../../arrival';
import { makeZip, openZip, readDmxValue, readGdtf, writeGdtf } from '.';

const typeFrom = (bytes: Uint8Array) => {
  const type = readGdtf(bytes);
  if (!type.ok) throw new Error(type.why);
  return type.value.type;
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
test('a file that says what its fixtures answer by RDM tells that they do', () => {
  const answering = FOREIGN.replace(
    '</FixtureType>',
    '<Protocols><FTRDMInfo ManufacturerID="0x7ff1" DeviceModelID="0x1"/></Protocols></FixtureType>',
  );
  const read = (xml: string) => typeFrom(makeZip({ 'description.xml': strToU8(xml) })).answers;
  expect([read(answering), read(FOREIGN)]).toEqual(['yes', 'not known']);
});

const described = (bytes: Uint8Array) => {
  const entries = openZip(bytes);
  return entries.ok ? new TextDecoder().decode(entries.value['description.xml']) : '';
};

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
const channel = (attributes: string, attribute = 'Dimmer', inside = '') =>
  `<DMXChannel ${attributes}><LogicalChannel Attribute="${attribute}"><ChannelFunction Name="F" Attribute="${attribute}" DMXFrom="0/1" Default="0/1">${inside}</ChannelFunction></LogicalChannel></DMXChannel>`;
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

describe('an edit of a foreign type', () => {
  const type = typeFrom(foreign);
  const [mode] = type.modes;
  const edited = (change: (channels: FixtureChannel[]) => FixtureChannel[], name = mode!.name) => ({
    ...type,
    modes: [{ name, channels: change(mode!.channels.map((each) => ({ ...each }))) }],
  });
  const kept = ['Sea green', 'Emitter', 'GeometryReference', 'FTMacro', 'Pretty="Dim"', 'Name="Flash"'];

  test('that changes nothing gives the very file', () => expect(writeGdtf(type, foreign)).toBe(foreign));

  test.each([
    ['a default', edited((all) => all.map((each, i) => (i === 0 ? { ...each, default: 100 } : each)))],
    ['a slot', edited((all) => all.map((each, i) => (i === 1 ? { ...each, offsets: [9] } : each)))],
    [
      'all cells alike',
      edited((all) => all.map((each) => (each.attribute === 'ColorAdd_R' ? { ...each, highlight: 128 } : each))),
    ],
    ['one cell', edited((all) => all.map((each) => (each.cell === 2 ? { ...each, default: 7 } : each)))],
    ['an attribute', edited((all) => all.map((each, i) => (i === 0 ? { ...each, attribute: 'Dimmer2' } : each)))],
    [
      'a channel more',
      edited((all) => [
        ...all.slice(0, 2),
        { attribute: 'Zoom', offsets: [4], default: 0, highlight: 0 },
        ...all.slice(2),
      ]),
    ],
    ['a channel less', edited((all) => all.slice(1))],
    [
      'two bytes for one, without named values',
      edited((all) =>
        all.map((each, i) =>
          i === 1 ? { attribute: 'Shutter1', offsets: [3, 7], default: 0, highlight: 65280 } : each,
        ),
      ),
    ],
    ['another name', edited((all) => all, 'Pixels')],
    [
      'named values',
      edited((all) =>
        all.map((each, i) =>
          i === 1 ? { ...each, ranges: [{ name: 'shut', from: 0, to: 19 }, ...each.ranges!.slice(1)] } : each,
        ),
      ),
    ],
    ['how far it shines', { ...type, kind: 'batten' as const }],
  ])('%s: it is read back so, and all else stays', (_, after) => {
    const out = writeGdtf(after, foreign);
    expect(typeFrom(out)).toEqual(after);
    const text = described(out);
    for (const part of kept) expect(text).toContain(part);
    expect(text).not.toContain('of Taxiarch');
  });
});

test('a type of our own says what a visualiser needs: axes, range, emitters, wheels, features, cells at their places', () => {
  const spot = described(writeGdtf(LIBRARY.find(({ name }) => name === 'Spot 16')!));
  for (const part of [
    '<Axis Name="Yoke"',
    '<Axis Name="Head"',
    'BeamAngle="6"',
    'FieldAngle="42"',
    'PhysicalFrom="-270" PhysicalTo="270"',
    'PhysicalFrom="-135" PhysicalTo="135"',
    'Feature="Position.PanTilt"',
    'ActivationGroup="PanTilt"',
    '<Wheel Name="Colour wheel 1">',
    '<Slot Name="sea green" Color="0.',
    'Wheel="Gobo 1"',
    '<Filter Name="Cyan"',
    '<Revision ',
  ])
    expect(spot).toContain(part);
  const batten = described(writeGdtf(LIBRARY.find(({ name }) => name === 'Batten 12')!));
  expect(batten.match(/<GeometryReference /g)).toHaveLength(12);
  expect(batten).toContain('DominantWaveLength="625.0"');
  const places = [...batten.matchAll(/<GeometryReference [^>]*Position="([^"]*)"/g)].map(([, place]) => place);
  expect(new Set(places).size).toBe(12);
});

test('an unknown range is exported as a usual one and imported as unknown', () => {
  const type = { ...LIBRARY.find(({ name }) => name === 'Spot 16')!, pan: 0, tilt: 0, beam: 0, field: 0 };
  const out = writeGdtf(type);
  const text = described(out);
  for (const attribute of ['Pan', 'Tilt', 'Zoom']) {
    const [, from, to] = new RegExp(
      `Attribute="${attribute}" DMXFrom="0/1"[^>]*PhysicalFrom="([^"]+)" PhysicalTo="([^"]+)"`,
    ).exec(text)!;
    expect(Number(to) - Number(from)).toBeGreaterThan(30);
  }
  expect(typeFrom(out)).toMatchObject({ pan: 0, tilt: 0, beam: 0, field: 0 });
  // Once somebody says it, it is said.
  expect(typeFrom(writeGdtf({ ...type, pan: 430 }, out))).toMatchObject({ pan: 430, tilt: 0 });
});

test('channels of one attribute have names of their own, in a lamp and in a cell', () => {
  const channel = (attribute: string, offset: number, cell?: number) => ({
    attribute,
    offsets: [offset],
    default: 0,
    highlight: 0,
    ...(cell !== undefined && { cell }),
  });
  const mode = {
    name: 'Three',
    channels: [
      channel('Dimmer', 1),
      channel('Dimmer', 2),
      ...[1, 2].flatMap((cell) => [
        channel('ColorAdd_R', 1 + 2 * cell, cell),
        channel('ColorAdd_R', 2 + 2 * cell, cell),
      ]),
    ],
  };
  const type = { ...LIBRARY.find(({ name }) => name === 'Spot 16')!, modes: [mode] };
  const out = writeGdtf(type);
  const names = [
    ...described(out).matchAll(/<DMXChannel [^>]*Geometry="([^"]+)"[^>]*>\s*<LogicalChannel Attribute="([^"]+)"/g),
  ];
  expect(names).toHaveLength(4);
  expect(new Set(names.map(([, geometry, attribute]) => `${geometry}_${attribute}`)).size).toBe(4);
  expect(typeFrom(out).modes[0]!.channels.map(({ cell, offsets }) => [cell, offsets[0]])).toEqual(
    mode.channels.map(({ cell, offsets }: { cell?: number; offsets: number[] }) => [cell, offsets[0]]),
  );
});

/** Any mode that can be: channels of one to four bytes one after the other, cells that are alike or not, named values. */
const anyMode = fc
  .array(
    fc.record({
      attribute: fc.constantFrom(
        'Dimmer',
        'Pan',
        'Tilt',
        'ColorAdd_R',
        'ColorAdd_W',
        'Gobo1',
        'Color1',
        'Zoom',
        'Bilge',
        'Shutter1',
      ),
      bytes: fc.integer({ min: 1, max: 4 }),
      cells: fc.integer({ min: 0, max: 4 }),
      block: fc.constantFrom(1, 1, 1, 2),
      share: fc.double({ min: 0, max: 1, noNaN: true }),
      marks: fc.uniqueArray(fc.integer({ min: 1, max: 254 }), { maxLength: 3 }),
    }),
    { minLength: 1, maxLength: 8 },
  )
  .map((parts): FixtureChannel[] => {
    const next = [1, 1];
    return parts.flatMap(({ attribute, bytes, cells, block, share, marks }) =>
      Array.from({ length: Math.max(1, cells) }, (_, i): FixtureChannel => {
        const first = next[block - 1]!;
        next[block - 1] = first + bytes;
        const unit = 256 ** (bytes - 1);
        const begins = [0, ...marks.sort((a, b) => a - b).map((mark) => mark * unit)];
        const ranges = begins.map((from, at) => ({ name: `v${at}`, from, to: (begins[at + 1] ?? 256 * unit) - 1 }));
        return {
          attribute,
          offsets: Array.from({ length: bytes }, (_, byte) => first + byte),
          default: Math.floor(share * (256 * unit - 1)),
          highlight: 255 * unit,
          ...(cells > 0 && { cell: i + 1 }),
          ...(block > 1 && { block }),
          ...(marks.length > 0 && { ranges }),
        };
      }),
    );
  })
  .map((channels) => [...channels].sort((a, b) => (a.block ?? 1) - (b.block ?? 1) || a.offsets[0]! - b.offsets[0]!));

test('any type of our own goes out and comes in equal', () => {
  fc.assert(
    fc.property(fc.array(anyMode, { minLength: 1, maxLength: 3 }), fc.constantFrom(0, 540), (all, pan) => {
      const has = (attribute: string) => all.flat().some((each) => each.attribute === attribute);
      const type: FixtureType = {
        ...LIBRARY[0]!,
        ...{ kind: 'other', answers: 'not known', pan: has('Pan') ? pan : 0, tilt: 0, beam: 0, field: 0 },
        modes: all.map((channels, i) => ({ name: `Mode ${i + 1}`, channels })),
      };
      expect({ ...typeFrom(writeGdtf(type)), id: type.id }).toEqual(type);
    }),
    { numRuns: 60 },
  );
});

test('any edit of a foreign type is read back so, and goes back to what it was', () => {
  const type = typeFrom(foreign);
  fc.assert(
    fc.property(anyMode, fc.boolean(), (channels, rename) => {
      const after = { ...type, modes: [{ name: rename ? 'Other' : type.modes[0]!.name, channels }] };
      const out = writeGdtf(after, foreign);
      expect(typeFrom(out)).toEqual(after);
      for (const part of ['Sea green', 'Emitter', 'FTMacro']) if (!rename) expect(described(out)).toContain(part);
      expect(typeFrom(writeGdtf(type, out))).toEqual(type);
    }),
    { numRuns: 60 },
  );
});
