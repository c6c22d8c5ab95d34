/** Tables as people have them: found, understood, each row a lamp; what cannot be read spoils only itself. */
import { utils, write } from '@e965/xlsx';
import { compareRig, fieldText } from '../arrival';
import { nightFerry } from '../../whole/demo';
import { LIBRARY } from '../../rig/library';
import { rigOf } from '../../rig/patch';
import type { FixtureType } from '../../show/records';
import {
  channelTable,
  guessColumns,
  lampTable,
  pixelTable,
  readLampTable,
  tableIn,
  usualChoices,
  writeTable,
  type TableChoices,
} from '.';
import { readSheets, writeSheet } from './sheets';

const ferry = nightFerry();
const bytesOf = (text: string) => new TextEncoder().encode(text);
const sheetOf = (bytes: Uint8Array | string) => {
  const sheets = readSheets(typeof bytes === 'string' ? bytesOf(bytes) : bytes);
  if (!sheets.ok) throw new Error(sheets.why);
  return sheets.value[0]!;
};
const tableOf = (bytes: Uint8Array | string) => {
  const table = tableIn(sheetOf(bytes));
  if (!table.ok) throw new Error(table.why);
  return table.value;
};
const take = (
  bytes: Uint8Array | string,
  more: Partial<TableChoices> = {},
  types: readonly FixtureType[] = LIBRARY,
) => {
  const table = tableOf(bytes);
  return readLampTable(table, { ...usualChoices(table), ...more }, types, ferry);
};
const at = (address: string, more: Partial<TableChoices> = {}) =>
  take(`Number;Type;Mode;Address\n1;Spot 16;Basic;${address}`, more).incoming.lamps[0]?.addresses?.[0];

test.each([
  ['csv', bytesOf(writeTable(lampTable(ferry)))],
  ['xlsx', writeSheet(lampTable(ferry).heads, lampTable(ferry).rows, 'Lamps', 'xlsx')],
  ['ods', writeSheet(lampTable(ferry).heads, lampTable(ferry).rows, 'Lamps', 'ods')],
])('the lamps go out as %s and come in as the same', (_, bytes) => {
  const { incoming, bad } = take(bytes);
  expect(bad).toEqual([]);
  expect(incoming.lamps).toHaveLength(420);
  expect(compareRig(rigOf(ferry), incoming).filter(({ state }) => state !== 'same')).toEqual([]);
});

test.each([
  [
    ['Fixture ID', 'Label', 'Manufacturer', 'Model', 'DMX Mode', 'Universe', 'DMX Address', 'Layer', 'Pos X', 'Weight'],
    ['number', 'name', 'maker', 'type', 'mode', 'universe', 'address', 'place', 'x', null],
  ],
  [
    ['Channel', 'Instrument Type', 'Position', 'Unit #', 'Address', 'Purpose'],
    ['number', 'type', 'position', 'unit', 'address', 'function'],
  ],
  [
    ['FID', 'Fixture', 'Univ.', 'Chan'],
    ['number', 'type', 'universe', 'channel'],
  ],
  [
    ['Chan', 'Dimmer', 'Fixture Type'],
    ['number', 'address', 'type'],
  ],
  [
    ['Nr.', 'Gerät', 'Modus', 'Universum', 'Startadresse', 'Ort'],
    ['number', 'type', 'mode', 'universe', 'address', 'place'],
  ],
] as const)('%s is understood', (heads, columns) => {
  expect(guessColumns([...heads], [heads.map(() => 'Spot')])).toEqual([...columns]);
});

test('a table below titles, with two rows of heads, sections and a sum, is found; lines are the file’s own', () => {
  const { incoming, bad } = take(
    [
      'Night Ferry;;;;;',
      'Rig of the foredeck, as of Tuesday;;;;;',
      ';;;;;',
      ';;;DMX;;',
      'Chan;Type;Mode;Universe;Start;Position',
      'Foremast;;;;;',
      '5;Baleen Spot 16;Basic;3;47;"Yard,',
      'port side"',
      'x;Spot 16;Basic;3;900;Yard',
      'Chan;Type;Mode;Universe;Start;Position',
      '6;Spot 16;23 ch;4;1-23;Yard',
      'Total;2 lamps;;;;',
    ].join('\n'),
  );
  expect(
    incoming.lamps.map(({ number, addresses, mode, position }) => [number, addresses?.[0], mode, position]),
  ).toEqual([
    [5, { universe: 3, channel: 47 }, 'Basic', 'Yard,\nport side'],
    [1, undefined, 'Basic', 'Yard'],
    [6, { universe: 4, channel: 1 }, 'Extended', 'Yard'],
  ]);
  expect(bad).toEqual([{ line: 9, why: expect.stringMatching(/900/) as string }]);
  expect(incoming.notes.join(' ')).toMatch(/without a lamp.*lines 6, 10, 12/);
});

test.each([
  ['3/47', 3, 47],
  ['3.47', 3, 47],
  ['3:047', 3, 47],
  ['A.12', 1, 12],
  ['B/7', 2, 7],
  ['1071', 3, 47],
  ['1/1-8', 1, 1],
  ['0.0.8/3', 9, 3],
  ['', 0, 0],
  ['0', 0, 0],
  ['none', 0, 0],
  ['unpatched', 0, 0],
])('the address “%s”', (text, universe, channel) => expect(at(text)).toEqual({ universe, channel }));

test('a plot’s own writing: channels in brackets, unit numbers with their sign, and modes by how many slots they take', () => {
  const { incoming } = take(
    'Channel,Position,Unit#,Instrument Type,DMX Channels,Address\n(101),1st Pipe,4,Spot 16,23,3/47',
  );
  expect(incoming.lamps).toMatchObject([
    { number: 101, written: '', position: '1st Pipe', unit: '4', mode: 'Extended' },
  ]);
});

test('what can mean two addresses is none, and is told', () => {
  const { incoming, bad } = take('Number;Type;Mode;Address\n901;Spot 16;Basic;1-47');
  expect([incoming.lamps[0]!.addresses, bad.map(({ line }) => line)]).toEqual([undefined, [2]]);
});

test('a table without heads loses no row; what its columns mean is asked', () => {
  const table = tableOf('1;Bell;Spot 16\n2;Buoy;Spot 16');
  expect([table.heads, table.rows.length, usualChoices(table).columns]).toEqual([
    ['Column 1', 'Column 2', 'Column 3'],
    2,
    [null, null, null],
  ]);
});

test('bases, units and lengths with their own unit', () => {
  expect(at('512', { channelBase: 0 })).toEqual({ universe: 2, channel: 1 });
  expect(at('0/5', { universeBase: 0 })).toEqual({ universe: 1, channel: 5 });
  const x = (head: string, value: string) => take(`Number;Type;${head}\n1;Spot 16;${value}`).incoming.lamps[0]!.x;
  expect([x('X (cm)', '250'), x('X', '10 ft'), x('X mm', '−1500'), x('X', '2,5')]).toEqual([2.5, 3.048, -1.5, 2.5]);
});

test('numbers that are words stand beside a free number; doubled ones are said and both kept', () => {
  const { incoming } = take(
    'No;Type;Mode;Address\nA12;Spot 16;Basic;1/1\n12;Spot 16;Basic;1/30\n12;Spot 16;Basic;1/60',
  );
  expect(incoming.lamps.map(({ number, written }) => [number, written])).toEqual([
    [13, 'A12'],
    [12, ''],
    [12, ''],
  ]);
  expect(incoming.notes).toEqual(['1 row without a number: A12 gets 13.', 'Number 12 stands in lines 3, 4.']);
});

test('types are matched by their very names in every script, and nothing that is only alike is taken', () => {
  const named = (name: string, id: string): FixtureType => ({ ...LIBRARY[0]!, id, maker: 'Orrin', name });
  const types = [named('Прожектор', 'a'), named('灯', 'b'), named('Fanal', 'c'), named('Fanal Plus', 'd')];
  const { incoming } = take(
    'No;Type;Mode\n1;прожектор;Dimmer\n2;灯;Dimmer\n3;FANAL;Dimmer\n4;Fanal Pl;Dimmer\n5;Лампа;Dimmer',
    {},
    types,
  );
  const known = new Map(incoming.types.map((type) => [type.id, type]));
  expect(incoming.lamps.map(({ typeId }) => (known.get(typeId)!.unknown ? known.get(typeId)!.name : typeId))).toEqual([
    ...['a', 'b', 'c', 'Fanal Pl', 'Лампа'],
  ]);
});

test('type and mode in one cell, a mode by its slots, and one that two have', () => {
  const { incoming } = take('No;Type;Mode\n1;Spot 16 Extended;\n2;Spot 16;Basic (20ch)\n3;Spot 16;\n4;Petal 4;5');
  const type = (typeId: string) => incoming.types.find(({ id }) => id === typeId)!;
  expect(incoming.lamps.map(({ typeId, mode }) => [type(typeId).unknown, mode])).toEqual([
    [false, 'Extended'],
    expect.anything(),
    [true, 'not said'],
    [false, 'Intensity RGBW'],
  ]);
});

test.each([
  ['UTF-8 with a mark', Uint8Array.of(0xef, 0xbb, 0xbf, ...bytesOf('No;Name;Type\n1;Küste;Spot 16'))],
  ['CP1252', Uint8Array.from([...'No;Name;Type\n1;Küste;Spot 16'].map((one) => one.charCodeAt(0)))],
  ['UTF-16 with a mark', new Uint8Array(Buffer.from('\ufeffNo;Name;Type\n1;Küste;Spot 16', 'utf16le'))],
  ['UTF-16 without', new Uint8Array(Buffer.from('No;Name;Type\n1;Küste;Spot 16', 'utf16le'))],
])('%s is read', (_, bytes) => expect(take(bytes).incoming.lamps[0]!.name).toBe('Küste'));

test('a cell that a table program would run is written safe, and read back as it was', () => {
  const name = '=1+1';
  const lamps = ['=1+1', '+7', '-x', '@home', "'=quoted"].map((one, i) => ({ ...ferry.lamp[i]!, name: one }));
  const { heads, rows } = lampTable({ ...ferry, lamp: lamps });
  expect(writeTable({ heads, rows })).toContain(`'${name}`);
  for (const bytes of [
    bytesOf(writeTable({ heads, rows })),
    writeSheet(heads, rows, 'L', 'xlsx'),
    writeSheet(heads, rows, 'L', 'ods'),
  ])
    expect(take(bytes).incoming.lamps.map((lamp) => lamp.name)).toEqual(lamps.map((lamp) => lamp.name));
});

test('what is no table is refused in a sentence', () => {
  for (const text of ['', '\n\n', 'a\0b,c\n1,2']) expect(readSheets(bytesOf(text))).toMatchObject({ ok: false });
  for (const text of ['one', 'Number,Name']) expect(tableIn(sheetOf(text))).toMatchObject({ ok: false });
});

test('over the show each row says field by field what is otherwise', () => {
  const { incoming } = take(
    'Number;Name;Type;Mode;Address;Hanging position\n101;Port spot 1;Spot 16;Extended;none;Rail',
  );
  const [row] = compareRig(rigOf(ferry), incoming).filter(({ state }) => state === 'changed');
  expect(row!.fields.map(fieldText)).toEqual(['address 2/1 → no address', 'hanging position none → Rail']);
});

test('channels and pixels have their tables', () => {
  const { patch } = rigOf(ferry);
  const channels = writeTable(channelTable(patch)).split('\r\n');
  expect(channels[1]).toBe('1/1,1,1,Wheelhouse lantern 1,Dimmer,Intensity,,coarse');
  expect(channels.length - 2).toBe(
    [...patch.all()].reduce(
      (sum, { mode }) => sum + mode.channels.reduce((most, { offsets }) => most + offsets.length, 0),
      0,
    ),
  );
  expect(writeTable(pixelTable(ferry)).split('\r\n')[2]).toBe(
    '802,Funnel seam port,30,GRB,8,90,13,13/217,13/306,6361,6450,6360,6449,Funnel cord driver,2,0,no',
  );
});

test('what a table does not say of a lamp stays as it is: no column of types, of modes, or of names', () => {
  const differ = (text: string) =>
    compareRig(rigOf(ferry), take(text, {}, ferry.type).incoming)
      .filter(({ state }) => state === 'changed')
      .map(({ subject, fields }) => [subject, ...fields.map(fieldText)]);
  expect(differ('Channel;Address\n101;2/300\n102;2/24')).toEqual([['101 Port spot 1', 'address 2/1 → 2/300']]);
  expect(differ('Channel;Type;Purpose\n101;Spot 16;Front')).toEqual([['101 Port spot 1', 'function none → Front']]);
  expect(differ('Channel;Mode\n101;Basic')).toEqual([['101 Port spot 1', 'mode Extended → Basic']]);
});

test('titles with commas above a table with semicolons do not part its cells', () => {
  const { incoming } = take('Night Ferry, foredeck, as of Tuesday, 3 pm\nNo;Type;Mode;Address\n1;Spot 16;Basic;1/1');
  expect(incoming.lamps[0]).toMatchObject({ number: 1, mode: 'Basic', addresses: [{ universe: 1, channel: 1 }] });
});

test('of a formula the value that stood there last is read; none is worked out', () => {
  const sheet = utils.aoa_to_sheet([
    ['No', 'Name'],
    [1, 'A'],
  ]);
  sheet['B2'] = { t: 's', v: 'as it was', f: 'HYPERLINK("http://127.0.0.1")' };
  const book = utils.book_new();
  utils.book_append_sheet(book, sheet, 'L');
  const bytes = new Uint8Array(write(book, { type: 'array', bookType: 'xlsx' }) as ArrayBuffer);
  expect(sheetOf(bytes).rows[1]!.cells).toEqual(['1', 'as it was']);
});

test('a head that ends in “in” is no length in inches, a lamp called Page is one, and a long name keeps no space at its end', () => {
  const { incoming, bad } = take(
    `Name;No;Type;Plug in;X\nPage left;1;Spot 16;3;2\n${'a'.repeat(118)} bcd;2;Spot 16;;#REF!`,
  );
  expect(incoming.lamps.map(({ name, x }) => [name.length, name.trim() === name, x])).toEqual([
    [9, true, 2],
    [119, true, undefined],
  ]);
  expect(bad).toEqual([{ line: 3, why: 'x: “#REF!” is no length.' }]);
});
