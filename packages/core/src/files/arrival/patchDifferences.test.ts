import type { FixtureChannel, FixtureMode } from '../../show/records';
import { nightFerry } from '../../whole/demo';
import { rigOf } from '../../rig/patch';
import { compareRig, type Incoming, lightOf, modeDifferences, patchDifferences } from '.';

const channel = (attribute: string, ...offsets: number[]): FixtureChannel => ({
  attribute,
  offsets,
  default: 0,
  highlight: offsets.length === 1 ? 255 : 65_535,
});
const mode = (name: string, ...channels: FixtureChannel[]): FixtureMode => ({ name, channels });
const basic = mode('Basic', channel('Dimmer', 1), channel('Pan', 2), channel('Tilt', 3));
const fine = mode('Fine', channel('Dimmer', 1), channel('Pan', 2, 3), channel('Tilt', 4, 5));
const turned = mode('Turned', channel('Dimmer', 1), channel('Tilt', 2), channel('Pan', 3));

test.each([
  ['the same', basic, basic, []],
  ['8 against 16 bit', basic, fine, ['footprint', 'bits']],
  ['two channels in another order', basic, turned, ['order']],
  ['one channel more', basic, mode('More', ...basic.channels, channel('Zoom', 4)), ['footprint']],
] as const)('%s', (_, one, other, found) => {
  expect(modeDifferences(one, other)).toEqual(found);
  expect([...modeDifferences(other, one)].sort()).toEqual([...found].sort());
});

test('an address that the other side does not say is not another one', () => {
  const here = { mode: basic, addresses: [{ universe: 2, channel: 1 }] };
  expect(patchDifferences(here, { mode: basic, addresses: [] })).toEqual([]);
  expect(patchDifferences(here, { mode: turned, addresses: [{ universe: 2, channel: 4 }] })).toEqual([
    'address',
    'mode',
    'order',
  ]);
});

test('both sides can be lit where each has the lamp', () => {
  expect(lightOf({ mode: fine, addresses: [{ universe: 3, channel: 10 }] })).toEqual({
    '3/10': 255,
    '3/11': 255,
    '3/12': 255,
    '3/13': 255,
    '3/14': 255,
  });
  expect(Object.keys(lightOf({ mode: basic, addresses: [{ universe: 3, channel: 512 }] }))).toEqual(['3/512']);
});

test('a rig from outside is joined by fixture number, and each row says how it differs', () => {
  const ferry = nightFerry();
  const rig = rigOf({ ...ferry, lamp: ferry.lamp.filter(({ number }) => number <= 3) });
  const lamps = ferry.lamp.filter(({ number }) => number <= 4);
  const incoming: Incoming = {
    types: ferry.type,
    notes: [],
    file: null,
    lamps: lamps
      .filter(({ number }) => number !== 3)
      .map((lamp) => ({
        ...lamp,
        addresses: [{ universe: lamp.universe, channel: lamp.number === 2 ? 400 : lamp.channel }],
        groups: undefined,
      })),
  };
  const rows = compareRig(rig, incoming).filter((row) => row.kind === 'lamp');
  expect(rows.map(({ state, differs }) => [state, differs])).toEqual([
    ['same', []],
    ['changed', ['address']],
    ['gone', []],
    ['added', []],
  ]);
  expect(rows[1]!.light).toMatchObject({ [`1/${lamps[1]!.channel}`]: 255, '1/400': 255 });
  expect(rows[0]!.light).toBeUndefined();
});
