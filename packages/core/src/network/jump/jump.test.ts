import { nightFerry } from '../../whole/demo';
import { findJumps } from '.';

const demo = nightFerry();
const heard = [{ address: '127.0.0.50', name: 'Odd box' }];
const first = (typed: string) => findJumps(typed, demo, heard)[0];

test('an address goes to its slot', () =>
  expect(first('3/47')).toMatchObject({ kind: 'slot', universe: 3, channel: 47 }));
test('a number goes to its lamp before those that begin with it', () => {
  expect(first('10')).toMatchObject({ kind: 'lamp', id: 'lamp-10' });
  expect(findJumps('10', demo, heard)[1]).toMatchObject({ id: 'lamp-101' });
});
test('u and a number goes to its universe', () =>
  expect(first('u12')).toMatchObject({ kind: 'universe', universe: 12 }));
test('an address of a machine goes there, planned or only heard', () => {
  expect(first('127.0.0.31')).toMatchObject({ kind: 'machine', key: 'machine-wheelhouse' });
  expect(first('127.0.0.50')).toMatchObject({ kind: 'machine', key: '127.0.0.50', label: 'Odd box, 127.0.0.50' });
});
test('words find names in any order', () => expect(first('spot port 3')).toMatchObject({ id: 'lamp-103' }));
test('nothing fits: nothing comes', () => {
  expect(findJumps('', demo, heard)).toEqual([]);
  expect(findJumps('zebra', demo, heard)).toEqual([]);
  expect(findJumps('u99', demo, heard)).toEqual([]);
});
