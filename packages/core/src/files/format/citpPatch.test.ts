import { nightFerry } from '../../whole/demo';
import { citpDiffers, citpFixtures, citpTable, untoldByCitp } from './citpPatch';
import { footprintOf } from '../../rig/fixture';

const ferry = nightFerry();
const told = citpFixtures(ferry);
const byNumber = (fixtures: typeof told) => new Map(fixtures.map((one) => [one.number, one]));

test('lamps are told by number, with universe and channel from 0, and their channels', () => {
  const lamp = ferry.lamp.find(({ number }) => number === 105)!;
  const type = ferry.type.find(({ id }) => id === lamp.typeId)!;
  expect(told.find(({ number }) => number === 105)).toEqual({
    ...{ number: 105, universe: lamp.universe - 1, channel: lamp.channel - 1, make: type.maker, name: type.name },
    channels: footprintOf(type.modes.find(({ name }) => name === lamp.mode)!),
  });
  expect(told).toHaveLength(420);
});

test('what it has no words for is counted: no address, universes beyond 256, numbers beyond 65535', () => {
  const [a, b, c, d] = ferry.lamp;
  const lamp = [
    { ...a!, universe: 0, channel: 0 },
    { ...b!, universe: 257 },
    { ...c!, number: 65_536 },
    { ...d!, universe: 256, number: 65_535 },
  ];
  expect(untoldByCitp({ lamp })).toBe(3);
  expect(citpFixtures({ lamp, type: ferry.type }).map(({ number }) => number)).toEqual([65_535]);
});

test('what lies elsewhere, takes another count of channels or is on one side only differs; what is no lamp is passed over', () => {
  expect(citpDiffers(told, byNumber(told), new Set())).toEqual([]);
  const [first, second, third, ...rest] = told;
  const theirs = [
    { ...first!, channel: first!.channel + 1 },
    { ...second!, channels: second!.channels + 2 },
    ...rest,
    { ...third!, number: 801 },
    { ...third!, number: 999 },
  ];
  expect(citpDiffers(told, byNumber(theirs), new Set([801]))).toEqual(
    [first!, second!, third!].map(({ number }) => number).concat(999),
  );
  // Who does not say how many channels a lamp takes says nothing against ours.
  expect(citpDiffers(told, byNumber(told.map((one) => ({ ...one, channels: 0 }))), new Set())).toEqual([]);
});

test('a patch that came is a table by number, from 1', () => {
  const [first] = told;
  expect(
    citpTable([
      { ...first!, number: 2 },
      { ...first!, channels: 0 },
    ])
      .split('\r\n')
      .slice(0, 3),
  ).toEqual([
    'Number,Maker,Type,Channels,Universe,Channel',
    `1,${first!.make},${first!.name},,1,1`,
    `2,${first!.make},${first!.name},${first!.channels},1,1`,
  ]);
});
