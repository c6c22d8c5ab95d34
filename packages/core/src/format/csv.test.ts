import { nightFerry } from '../demo';
import { LIBRARY } from '../library';
import { rigOf } from '../patch';
import {
  compareRig,
  guessColumns,
  readLampTable,
  readTable,
  writeChannelTable,
  writeLampTable,
  writePixelTable,
  type TableChoices,
} from '.';

const ferry = nightFerry();
const tableOf = (text: string) => {
  const table = readTable(text);
  if (!table.ok) throw new Error(table.why);
  return table.value;
};
const choices = (columns: TableChoices['columns'], more: Partial<TableChoices> = {}): TableChoices => ({
  columns,
  unit: 'm',
  channelBase: 1,
  universeBase: 1,
  ...more,
});
const take = (text: string, more: Partial<TableChoices> = {}) => {
  const table = tableOf(text);
  return readLampTable(table, choices(guessColumns(table.heads), more), LIBRARY, ferry);
};

test('the lamps go out and come in as the same', () => {
  const { incoming, bad } = take(writeLampTable(ferry));
  expect(bad).toEqual([]);
  expect(compareRig(rigOf(ferry), incoming).filter(({ state }) => state !== 'same')).toEqual([]);
});

test('columns are guessed from their heads', () => {
  expect(
    guessColumns([
      'Fixture ID',
      'Label',
      'Manufacturer',
      'Model',
      'DMX Mode',
      'Universe',
      'DMX Address',
      'Layer',
      'Pos X',
      'Weight',
    ]),
  ).toEqual(['number', 'name', 'maker', 'type', 'mode', 'universe', 'address', 'place', 'x', null]);
});

test('bad rows are named with their reason, and the good ones stand', () => {
  const { incoming, bad } = take(
    [
      'Number;Name;Type;Mode;Address',
      '5;A;Baleen Spot 16;Basic;3/47',
      'x;B;Spot 16;Basic;1/1',
      '6;C;Nothing;Basic;1/1',
      '7;D;Spot 16;Nope;1/1',
      '8;E;Spot 16;Basic;3/600',
      '5;F;Spot 16;;',
    ].join('\n'),
  );
  expect(incoming.lamps.map(({ number, addresses }) => [number, addresses])).toEqual([
    [5, [{ universe: 3, channel: 47 }]],
  ]);
  expect(bad.map(({ line }) => line)).toEqual([3, 4, 5, 6, 7]);
  expect(bad[4]!.why).toBe('Number 5 stands in line 2 already.');
});

test('absolute channels, bases, Art-Net universes and units', () => {
  const one = (row: string, more: Partial<TableChoices> = {}) =>
    take(`Number,Type,Address,X\n1,Spot 16,${row}`, more).incoming.lamps.map(({ addresses, x }) => [
      addresses[0],
      x,
    ])[0];
  expect(one('513,1')).toEqual([{ universe: 2, channel: 1 }, 1]);
  expect(one('512,1', { channelBase: 0 })).toEqual([{ universe: 2, channel: 1 }, 1]);
  expect(one('0.5,250', { universeBase: 0, unit: 'cm' })).toEqual([{ universe: 1, channel: 5 }, 2.5]);
  expect(one('0.0.8/3,10', { unit: 'ft' })).toEqual([{ universe: 9, channel: 3 }, 3.048]);
});

test('what is no table is refused in a sentence', () => {
  for (const text of ['', 'one', 'Number,Name', 'a\0b,c\n1,2']) expect(readTable(text)).toMatchObject({ ok: false });
});

test('a cell that a table program would run is made plain', () => {
  const text = writeLampTable({ ...ferry, lamp: [{ ...ferry.lamp[0]!, name: '=1+1' }] });
  expect(text).toContain("'=1+1");
});

test('channels and pixels have their tables', () => {
  const { patch } = rigOf(ferry);
  const channels = writeChannelTable(patch).split('\r\n');
  expect(channels[1]).toBe('1/1,1,1,Wheelhouse lantern 1,Dimmer,Intensity,,coarse');
  expect(channels.length - 2).toBe(
    [...patch.all()].reduce(
      (sum, { mode }) => sum + mode.channels.reduce((most, { offsets }) => most + offsets.length, 0),
      0,
    ),
  );
  expect(writePixelTable(ferry).split('\r\n')[2]).toBe(
    '802,Funnel seam port,30,GRB,8,90,13,13/217,13/306,6361,6450,6360,6449,Funnel cord driver,2,0,no',
  );
});
