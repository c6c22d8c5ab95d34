/** GDTF that goes out: types of our own, and foreign ones that were edited. */
import fc from 'fast-check';
import type { FixtureChannel, FixtureType } from '../../../show/records';
import { LIBRARY } from '../../../rig/library';
import { writeGdtf } from '.';
import { typeFrom, foreign, described } from './testing/types';

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
