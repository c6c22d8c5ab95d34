/** Files made to hurt. Every reader says in a sentence why it does not take them, and does so quickly. */
import fc from 'fast-check';
import { strToU8, zipSync } from 'fflate';
import { nightFerry } from '../../../whole/demo';
import { lampTable, readShowFile, tableIn } from '..';
import { readSheets, writeSheet } from '../sheets';
import { makeZip, openZip, readGdtf, readMvr, writeGdtf, writeMvr } from '.';

const ferry = nightFerry();
const gdtf = writeGdtf(ferry.type[0]!);
const mvr = writeMvr({ ...ferry, lamp: ferry.lamp.slice(0, 3) }, () => undefined);
const few = lampTable({ ...ferry, lamp: ferry.lamp.slice(0, 3) });
const [xlsx, ods] = (['xlsx', 'ods'] as const).map((form) => writeSheet(few.heads, few.rows, 'L', form)) as [
  Uint8Array,
  Uint8Array,
];
const SENTENCE = { ok: false, why: expect.stringMatching(/^\S.*\.$/s) as string };

const described = (xml: string) =>
  zipSync({ 'description.xml': strToU8(xml), 'GeneralSceneDescription.xml': strToU8(xml) });
/** Sets the size that an entry says it unpacks to, in both of its headers. */
function lying(bytes: Uint8Array, size: number): Uint8Array {
  const copy = bytes.slice();
  const view = new DataView(copy.buffer);
  for (let at = 0; at + 4 <= copy.length; at += 1) {
    if (view.getUint32(at, true) === 0x04034b50) view.setUint32(at + 22, size, true);
    if (view.getUint32(at, true) === 0x02014b50) view.setUint32(at + 24, size, true);
  }
  return copy;
}

const ENTITIES = `<?xml version="1.0"?><!DOCTYPE a [<!ENTITY a "aaaaaaaaaa"><!ENTITY b "&a;&a;&a;&a;">]><GDTF><FixtureType Name="&b;"/></GDTF>`;
const hostile: Readonly<Record<string, Uint8Array>> = {
  'nothing at all': new Uint8Array(0),
  'no archive': strToU8('Not a ZIP archive.'),
  'a bomb': zipSync({
    'description.xml': new Uint8Array(64 * 1024 * 1024),
    'GeneralSceneDescription.xml': new Uint8Array(64 * 1024 * 1024),
  }),
  'an entry that says it is huge': lying(described('<GDTF/>'), 0xfffffff0),
  'too many entries': zipSync(Object.fromEntries(Array.from({ length: 4500 }, (_, i) => [`f${i}`, new Uint8Array(0)]))),
  'a way out by dots': zipSync({ '../../etc/description.xml': strToU8('x') }),
  'a way out from the root': zipSync({ '/description.xml': strToU8('x') }),
  'a way out by backslash': zipSync({ '..\\description.xml': strToU8('x') }),
  'a drive': zipSync({ 'C:/description.xml': strToU8('x') }),
  'an archive without its document': zipSync({ 'other.txt': strToU8('x') }),
  entities: described(ENTITIES),
  'an outside entity': described('<!DOCTYPE a SYSTEM "file:///etc/passwd"><GDTF/>'),
  'no XML': described('<GDTF><FixtureType></GDTF>'),
  'empty XML': described(''),
  'another root': described('<Other/>'),
  'no type or scene': described('<GDTF/>'),
  'text that is not UTF-8': zipSync({
    'description.xml': Uint8Array.of(0x3c, 0xff, 0xfe),
    'GeneralSceneDescription.xml': Uint8Array.of(0x3c, 0xff),
  }),
  'deep nesting': described('<a>'.repeat(20_000)),
};

describe.each(Object.entries(hostile))('%s', (_, bytes) => {
  test('is refused as a type', () => expect(readGdtf(bytes)).toMatchObject(SENTENCE));
  test('is refused as a rig', () => expect(readMvr(bytes)).toMatchObject(SENTENCE));
  test('is refused as a table, or is one of text without heads', () => {
    const sheets = readSheets(bytes);
    if (!sheets.ok) expect(sheets).toMatchObject(SENTENCE);
    else expect(tableIn(sheets.value[0]!)).toMatchObject(SENTENCE);
  });
});

const withChannel = (attributes: string) =>
  described(
    `<GDTF><FixtureType Name="A" Manufacturer="B"><DMXModes><DMXMode Name="M"><DMXChannels><DMXChannel ${attributes}><LogicalChannel Attribute="Dimmer"/></DMXChannel></DMXChannels></DMXMode></DMXModes></FixtureType></GDTF>`,
  );

test.each([
  'Offset="0"',
  'Offset="513"',
  'Offset="1,1"',
  'Offset="a"',
  'Offset="1,2,3,4,5"',
  'Offset="-4"',
  'Offset="1e9"',
])('a channel with %s is refused', (attributes) => {
  expect(readGdtf(withChannel(attributes))).toMatchObject(SENTENCE);
});

test('files cut short at any place, or with any byte changed, are read or refused, never thrown over', () => {
  fc.assert(
    fc.property(
      fc.constantFrom(gdtf, mvr, xlsx, ods),
      fc.double({ min: 0, max: 0.999, noNaN: true }),
      fc.nat(255),
      fc.boolean(),
      (file, where, byte, cut) => {
        const at = Math.floor(where * file.length);
        const bytes = cut ? file.slice(0, at) : file.slice();
        if (!cut) bytes[at] = byte;
        for (const result of [readGdtf(bytes), readMvr(bytes), readSheets(bytes)])
          expect(result.ok || result.why.endsWith('.') || result.why.includes('.')).toBe(true);
      },
    ),
    { numRuns: 80 },
  );
});

test('any text at all is a table or a show file, or refused', () => {
  fc.assert(
    fc.property(fc.string({ unit: 'binary' }), (text) => {
      for (const result of [readSheets(new TextEncoder().encode(text)), readShowFile(text)])
        if (!result.ok) expect(result.why).toMatch(/\.$/);
    }),
  );
});

test('wrong kinds of things within a sound archive are refused', () => {
  expect(
    readMvr(
      makeZip({
        'GeneralSceneDescription.xml': strToU8(
          '<GeneralSceneDescription><Scene><Layers><Layer><ChildList><Truss/></ChildList></Layer></Layers></Scene></GeneralSceneDescription>',
        ),
      }),
    ),
  ).toMatchObject(SENTENCE);
  expect(openZip(gdtf.slice(0, gdtf.length - 10))).toMatchObject(SENTENCE);
});
