/** What spreadsheets do to tables of lamps: dates, lost zeros, hidden and merged cells, older forms, other encodings. */
import { utils, write, type CellObject, type WorkBook } from '@e965/xlsx';
import fc from 'fast-check';
import { formatAddress } from '../../../base/address';
import { nightFerry } from '../../../whole/demo';
import { emptyShow, type Lamp } from '../../../show/records';
import { LIBRARY } from '../../../rig/library';
import { makeZip } from '../archive';
import { lampTable, readLampTable, tableIn, usualChoices, writeTable, type TableChoices } from '..';
import { readSheets, writeSheet } from '.';

const records = emptyShow();
const HEADS = ['Number', 'Type', 'Address', 'X (mm)'];
type Cell = string | number | CellObject;

function book(rows: readonly (readonly Cell[])[], more: (made: WorkBook) => void = () => undefined): WorkBook {
  const sheet = utils.aoa_to_sheet([HEADS, ...rows.map((row) => [...row])] as Cell[][]);
  const made = utils.book_new();
  utils.book_append_sheet(made, sheet, 'Lamps');
  more(made);
  return made;
}
const bytesOf = (made: WorkBook, bookType: 'xlsx' | 'ods' | 'xls' | 'html' = 'xlsx'): Uint8Array =>
  bookType === 'html'
    ? new TextEncoder().encode(write(made, { type: 'string', bookType }) as string)
    : new Uint8Array(write(made, { type: 'array', bookType, cellStyles: true }) as ArrayBuffer);

function readAll(bytes: Uint8Array, said: Partial<TableChoices> = {}) {
  const sheets = readSheets(bytes);
  if (!sheets.ok) throw new Error(sheets.why);
  const table = tableIn(sheets.value[0]!);
  if (!table.ok) throw new Error(table.why);
  const read = readLampTable(table.value, { ...usualChoices(table.value), ...said }, LIBRARY, records);
  const lamps = read.incoming.lamps.map(({ number, addresses, x }) => [
    number,
    addresses?.map(formatAddress).join(' + '),
    x,
  ]);
  return { ...read, lamps };
}
const date = (serial: number, z: string): CellObject => ({ t: 'n', v: serial, z });
/** 12 March 2026 and 1 January 1947, as spreadsheets count days */
const [MARCH_12, JANUARY_47] = [46_093, 17_168];
const row = (address: Cell, x: Cell = 0): Cell[] => [1, 'Lantern 1k', address, x];

describe('addresses that became dates', () => {
  test.each([
    ['day first', 'd/m/yyyy', MARCH_12, '12/3'],
    ['month first', 'm/d', MARCH_12, '3/12'],
    ['month and year', 'mmm-yy', JANUARY_47, '1/47'],
  ])('are put back where the format says how they were typed: %s', (_, format, serial, address) => {
    const { lamps, questions } = readAll(bytesOf(book([row(date(serial, format))])));
    expect([lamps, questions]).toEqual([[[1, address, 0]], []]);
  });

  test.each(['d-mmm', 'm/d/yy', 'yyyy-mm-dd'])('are asked where it does not: %s', (format) => {
    const bytes = bytesOf(book([row(date(MARCH_12, format))]));
    const { lamps, questions, bad } = readAll(bytes);
    expect([lamps, questions]).toEqual([[[1, undefined, 0]], ['dates']]);
    expect(bad[0]!.why).toMatch(/It was 12\/3 or 3\/12/);
    expect(readAll(bytes, { dates: 'day first' }).lamps).toEqual([[1, '12/3', 0]]);
    expect(readAll(bytes, { dates: 'month first' }).lamps).toEqual([[1, '3/12', 0]]);
  });
});

test('a number that may have lost a zero is asked; one that shows its zeros, or cannot have more, is not', () => {
  const bytes = bytesOf(book([row(1.1), row({ t: 'n', v: 1.1, z: '0.00' }), row(1.52)]));
  const { lamps, questions } = readAll(bytes);
  expect([lamps.map(([, address]) => address), questions]).toEqual([[undefined, '1/10', '1/52'], ['decimals']]);
  expect(readAll(bytes, { decimals: 'as shown' }).lamps.map(([, address]) => address)).toEqual(['1/1', '1/10', '1/52']);
});

test('1,250 mm is asked, unless another length says what its comma is', () => {
  const alone = bytesOf(book([row('1/1', '1,250')]));
  expect(readAll(alone)).toMatchObject({ questions: ['commas'], lamps: [[1, '1/1', undefined]] });
  expect(readAll(alone, { commas: 'thousands' }).lamps).toEqual([[1, '1/1', 1.25]]);
  expect(readAll(alone, { commas: 'decimal' }).lamps).toEqual([[1, '1/1', 0.001]]);
  expect(readAll(bytesOf(book([row('1/1', '1,250'), row('1/2', '2,5')]))).questions).toEqual([]);
  expect(readAll(bytesOf(book([row('1/1', '1,250'), row('1/2', '1,250.5')]))).lamps[0]).toEqual([1, '1/1', 1.25]);
});

test.each([
  [`12' 6"`, 3.81],
  [`12'-6 1/2"`, 3.823],
  ['12ft 6in', 3.81],
  [`-6"`, -0.152],
  ['2.5 m', 2.5],
])('a length of %s is %d m', (text, metres) => {
  expect(readAll(bytesOf(book([row('1/1', text)]))).lamps).toEqual([[1, '1/1', metres]]);
});

test.each([
  ['3 47', '3/47'],
  ['U3 CH47', '3/47'],
  ['U2 A17', '2/17'],
  ['2.009-2.016', '2/9'],
  ['3/47, 4/1', '3/47 + 4/1'],
  ['3,47', '3/47'],
])('an address written %s is %s', (text, address) => {
  expect(readAll(bytesOf(book([row(text)]))).lamps).toEqual([[1, address, 0]]);
});

test('101-104 is four lamps: where a range of channels parts evenly each has its own, else only the first is known', () => {
  const lines = [
    ['101-104', 'Lantern 1k', '1/1-4', 0],
    ['201-203', 'Lantern 1k', '2/1', 0],
    ['301-302', 'Lantern 1k', '3/1, 4/9', 0],
  ];
  const { lamps, bad } = readAll(bytesOf(book(lines)));
  expect(lamps.map(([number, address]) => `${number} ${address ?? ''}`)).toEqual([
    ...['101 1/1', '102 1/2', '103 1/3', '104 1/4', '201 2/1', '202 ', '203 ', '301 3/1', '302 4/9'],
  ]);
  expect(bad.map(({ why }) => why)).toEqual(['201-203 is 3 lamps; the row says only where 201 begins.']);
});

test('what is out of sight never wins: hidden sheets come last, hidden columns mean nothing, filtered rows are told', () => {
  const made = book([row('1/1'), row('1/2')], (whole) => {
    const sheet = whole.Sheets['Lamps']!;
    utils.sheet_add_aoa(sheet, [['Address'], ['9/1'], ['9/2']], { origin: 'A1' });
    utils.sheet_add_aoa(sheet, [
      ['Address', 'Type', 'Number', 'DMX'],
      ['9/1', 'Lantern 1k', 1, '1/1'],
      ['9/2', 'Lantern 1k', 2, '1/2'],
    ]);
    sheet['!cols'] = [{ hidden: true }];
    sheet['!rows'] = [{}, {}, { hidden: true }];
    utils.book_append_sheet(whole, utils.aoa_to_sheet([HEADS, row('7/7')]), 'Old');
    whole.SheetNames.reverse();
    whole.Workbook = {
      Sheets: [
        { name: 'Old', Hidden: 1 },
        { name: 'Lamps', Hidden: 0 },
      ],
    };
  });
  const sheets = readSheets(bytesOf(made));
  expect(sheets.ok && sheets.value.map(({ name, hidden }) => [name, hidden])).toEqual([
    ['Lamps', undefined],
    ['Old', true],
  ]);
  const { lamps, incoming } = readAll(bytesOf(made));
  expect(lamps.map(([number, address]) => [number, address])).toEqual([
    [1, '1/1'],
    [2, '1/2'],
  ]);
  expect(incoming.notes).toContain('1 row hidden in the spreadsheet, read all the same: line 3.');
});

test('merged cells mean each of their rows', () => {
  const made = book(
    [
      [1, 'Lantern 1k', '1/1', 0],
      [2, '', '1/2', 0],
    ],
    (whole) => {
      whole.Sheets['Lamps']!['!merges'] = [{ s: { r: 1, c: 1 }, e: { r: 2, c: 1 } }];
    },
  );
  expect(new Set(readAll(bytesOf(made)).incoming.lamps.map(({ typeId }) => typeId)).size).toBe(1);
});

test.each(['xls', 'html', 'ods'] as const)('%s is read by the same library', (form) => {
  expect(readAll(bytesOf(book([row('3/47')]), form)).lamps).toEqual([[1, '3/47', 0]]);
});

test('text of western Windows keeps its quotes, euro and dash', () => {
  const text = [
    ...new TextEncoder().encode('Number,Name,Address\n1,'),
    0x93,
    0x80,
    0x94,
    0x20,
    0x96,
    ...new TextEncoder().encode(',1/1\n'),
  ];
  expect(readAll(Uint8Array.from(text)).incoming.lamps[0]!.name).toBe('“€” –');
});

test('a kilobyte that says a billion cells is refused before it is expanded', () => {
  const content = `<?xml version="1.0"?><office:document-content xmlns:office="urn:oasis:names:tc:opendocument:xmlns:office:1.0" xmlns:table="urn:oasis:names:tc:opendocument:xmlns:table:1.0" xmlns:text="urn:oasis:names:tc:opendocument:xmlns:text:1.0"><office:body><office:spreadsheet><table:table table:name="A"><table:table-row table:number-rows-repeated="1000000"><table:table-cell office:value-type="string" table:number-columns-repeated="1000"><text:p>x</text:p></table:table-cell></table:table-row></table:table></office:spreadsheet></office:body></office:document-content>`;
  const zip = makeZip({
    mimetype: new TextEncoder().encode('application/vnd.oasis.opendocument.spreadsheet'),
    'content.xml': new TextEncoder().encode(content),
  });
  expect(readSheets(zip)).toMatchObject({ ok: false, why: expect.stringMatching(/million cells/) as string });
});

describe('our own table of lamps', () => {
  const demo = nightFerry();
  const word = fc.constantFrom('', 'A12', '7b', 'LX 1', 'front', '“Quay”', '=1+1', 'R119', '12/3', '1,5');
  const said = fc.record({
    ...{ written: word, unit: word, position: word, class: word, function: word },
    ...{ gel: word, circuit: word, notes: word },
  });
  test.each(['xlsx', 'ods', 'csv'] as const)('goes out as %s and comes in equal, column by column', (form) => {
    fc.assert(
      fc.property(fc.array(said, { minLength: 1, maxLength: 6 }), (texts) => {
        const lamp = texts.map((text, i): Lamp => ({ ...demo.lamp[i]!, ...text }));
        const show = { ...demo, lamp };
        const table = lampTable(show);
        const bytes =
          form === 'csv'
            ? new TextEncoder().encode(writeTable(table))
            : writeSheet(table.heads, table.rows, 'Lamps', form);
        const sheets = readSheets(bytes);
        const found = sheets.ok ? tableIn(sheets.value[0]!) : sheets;
        if (!found.ok) throw new Error(found.why);
        const { incoming, bad } = readLampTable(found.value, usualChoices(found.value), demo.type, show);
        expect(bad).toEqual([]);
        for (const [i, one] of incoming.lamps.entries()) {
          const { number, name, typeId, mode } = lamp[i]!;
          expect(one).toMatchObject({ number, name, typeId, mode, ...texts[i] });
          expect(one.addresses?.map(formatAddress)).toEqual([formatAddress(lamp[i]!)]);
        }
      }),
      { numRuns: 20 },
    );
  });
});
