import { blocksOf, channelMaximum, footprintOf, rangeAt } from '../fixture';
import { checkRecord, FIXTURE_KINDS } from '../../show/records';
import { LIBRARY } from '.';

test('at least forty types, of every kind, each with an id and a name of its own', () => {
  expect(LIBRARY.length).toBeGreaterThanOrEqual(40);
  expect(new Set(LIBRARY.map(({ id }) => id)).size).toBe(LIBRARY.length);
  expect(new Set(LIBRARY.map(({ maker, name }) => `${maker} ${name}`)).size).toBe(LIBRARY.length);
  expect(new Set(LIBRARY.map(({ kind }) => kind))).toEqual(new Set(FIXTURE_KINDS));
});

test.each(LIBRARY.map((type) => [`${type.maker} ${type.name}`, type] as const))('%s is sound', (_, type) => {
  expect(checkRecord('type', type)).toMatchObject({ ok: true });
  for (const mode of type.modes) {
    const taken = mode.channels.flatMap(({ block = 1, offsets }) => offsets.map((offset) => `${block}/${offset}`));
    expect(new Set(taken).size).toBe(taken.length);
    expect(taken.length).toBe(footprintOf(mode));
    expect(Math.max(...blocksOf(mode))).toBeLessThanOrEqual(512);
    for (const channel of mode.channels) {
      expect(channel.default).toBeLessThanOrEqual(channelMaximum(channel));
      expect(channel.highlight).toBeLessThanOrEqual(channelMaximum(channel));
    }
  }
});

test('fine bytes may stand at the end, cells in a block of their own, values have names', () => {
  const modeOf = (id: string, name: string) =>
    LIBRARY.find((one) => one.id === id)!.modes.find((one) => one.name === name)!;
  expect(
    modeOf('type-spot-8', 'Fine at the end')
      .channels.slice(0, 2)
      .map(({ offsets }) => offsets),
  ).toEqual([
    [1, 8],
    [2, 9],
  ]);
  expect(blocksOf(modeOf('type-wash-19', 'Cells apart'))).toEqual([9, 76]);
  const shutter = modeOf('type-spot-16', 'Basic').channels.find(({ attribute }) => attribute === 'Shutter1')!;
  expect([rangeAt(shutter, 5)?.name, rangeAt(shutter, 255)?.name]).toEqual(['closed', 'open']);
});
