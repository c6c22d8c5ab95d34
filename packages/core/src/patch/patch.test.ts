import fc from 'fast-check';
import type { FixtureType, Lamp } from '../show';
import { Patch } from '.';

/** A type whose mode “n” takes n slots. */
const type: FixtureType = {
  id: 't',
  rev: 1,
  maker: 'Orrin',
  name: 'Test',
  modes: Array.from({ length: 40 }, (_, i) => ({
    name: String(i + 1),
    channels: Array.from({ length: i + 1 }, (_, slot) => ({
      attribute: `A${slot + 1}`,
      offsets: [slot + 1],
      default: 0,
      highlight: 0,
    })),
  })),
};

const lamp = (number: number, universe: number, channel: number, size: number): Lamp => ({
  id: `lamp-${number}`,
  rev: 1,
  number,
  name: `Lamp ${number}`,
  typeId: 't',
  mode: String(size),
  universe,
  channel,
  placeId: null,
  x: 0,
  y: 0,
  z: 0,
});

test('a slot knows its lamp, attribute and byte', () => {
  const wide: FixtureType = {
    ...type,
    modes: [
      {
        name: '4',
        channels: [
          { attribute: 'Pan', offsets: [1, 3], default: 0, highlight: 0 },
          { attribute: 'Dimmer', offsets: [4], default: 0, highlight: 255 },
        ],
      },
    ],
  };
  const patch = new Patch([lamp(1, 2, 10, 4)], [wide]);
  const at = (channel: number) =>
    patch.at({ universe: 2, channel }).map(({ channel: c, byte, offset }) => [c?.attribute, byte, offset]);
  expect([at(9), at(10), at(11), at(12), at(13), at(14)]).toEqual([
    [],
    [['Pan', 0, 1]],
    [[undefined, 0, 2]],
    [['Pan', 1, 3]],
    [['Dimmer', 0, 4]],
    [],
  ]);
});

test('overlaps are found once a pair, with the slot where they begin', () => {
  const patch = new Patch([lamp(1, 1, 1, 10), lamp(2, 1, 10, 5), lamp(3, 1, 15, 5), lamp(4, 2, 10, 5)], [type]);
  expect(patch.findings().map(({ sentence }) => sentence)).toEqual(['Lamps 1 and 2 overlap from 1/10.']);
  expect(patch.at({ universe: 1, channel: 10 }).map(({ lamp: { number } }) => number)).toEqual([1, 2]);
});

test('a lamp inside a longer one is found, though another begins between', () => {
  const patch = new Patch([lamp(1, 1, 1, 30), lamp(2, 1, 5, 2), lamp(3, 1, 20, 2)], [type]);
  expect(patch.findings()).toHaveLength(2);
});

test('lamps that run past 512 are found, by how much', () => {
  const [finding] = new Patch([lamp(7, 3, 510, 5)], [type]).findings();
  expect(finding).toMatchObject({ rule: 'past-end', beyond: 2, sentence: 'Lamp 7 at 3/510 runs 2 past channel 512.' });
});

test('lamps whose type or mode is unknown are left out', () => {
  const patch = new Patch(
    [{ ...lamp(1, 1, 1, 1), typeId: 'gone' }, { ...lamp(2, 1, 1, 1), mode: 'gone' }, lamp(3, 1, 1, 1)],
    [type],
  );
  expect(patch.universe(1).map(({ lamp: { number } }) => number)).toEqual([3]);
  expect(patch.universes()).toEqual([1]);
});

test('collisions are found exactly where a slot has two lamps', () => {
  const lamps = fc.array(
    fc.record({
      universe: fc.integer({ min: 1, max: 3 }),
      channel: fc.integer({ min: 1, max: 60 }),
      size: fc.integer({ min: 1, max: 20 }),
    }),
    { maxLength: 12 },
  );
  fc.assert(
    fc.property(lamps, (list) => {
      const patch = new Patch(
        list.map((one, i) => lamp(i + 1, one.universe, one.channel, one.size)),
        [type],
      );
      const shared = [1, 2, 3].some((universe) =>
        Array.from({ length: 100 }, (_, i) => patch.at({ universe, channel: i + 1 }).length).some(
          (claims) => claims > 1,
        ),
      );
      expect(patch.findings().some(({ rule }) => rule === 'overlap')).toBe(shared);
    }),
  );
});
