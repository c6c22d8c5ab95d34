import fc from 'fast-check';
import { PLAIN_LAMP, PLAIN_TYPE, type FixtureType, type Lamp, type Universe } from '../../show/records';
import { Patch, patchFindings } from '.';

const findingsOf = (patch: Patch) =>
  patchFindings(
    patch,
    [1, 2, 3].map((number) => ({ number }) as Universe),
  );

/** A type whose mode “n” takes n slots. */
const type: FixtureType = {
  ...PLAIN_TYPE,
  id: 't',
  rev: 1,
  maker: 'Orrin',
  name: 'Test',
  kind: 'other',
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
  ...PLAIN_LAMP,
  id: `lamp-${number}`,
  rev: 1,
  number,
  name: `Lamp ${number}`,
  typeId: 't',
  mode: String(size),
  universe,
  channel,
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
  expect(findingsOf(patch).map(({ sentence }) => sentence)).toEqual(['Lamp 1 and lamp 2 overlap from 1/10.']);
  expect(patch.at({ universe: 1, channel: 10 }).map(({ lamp: { number } }) => number)).toEqual([1, 2]);
});

test('a lamp inside a longer one is found, though another begins between', () => {
  const patch = new Patch([lamp(1, 1, 1, 30), lamp(2, 1, 5, 2), lamp(3, 1, 20, 2)], [type]);
  expect(findingsOf(patch)).toHaveLength(2);
});

test('lamps that run past 512 are found, by how much', () => {
  const [finding] = findingsOf(new Patch([lamp(7, 3, 510, 5)], [type]));
  expect(finding).toMatchObject({ rule: 'past-end', sentence: 'Lamp 7 at 3/510 runs 2 past channel 512.' });
});

test('lamps whose type or mode is unknown are left out', () => {
  const patch = new Patch(
    [{ ...lamp(1, 1, 1, 1), typeId: 'gone' }, { ...lamp(2, 1, 1, 1), mode: 'gone' }, lamp(3, 1, 1, 1)],
    [type],
  );
  expect(patch.universe(1).map(({ patched }) => patched.lamp.number)).toEqual([3]);
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
      expect(findingsOf(patch).some(({ rule }) => rule === 'overlap')).toBe(shared);
    }),
  );
});

test('twins that are declared are no collision; others at their address are', () => {
  const twin = (number: number) => ({ ...lamp(number, 1, 1, 4), twin: 'pair' });
  expect(findingsOf(new Patch([twin(1), twin(2)], [type]))).toEqual([]);
  expect(findingsOf(new Patch([twin(1), twin(2), lamp(3, 1, 4, 1)], [type])).map(({ rule }) => rule)).toEqual([
    'overlap',
  ]);
});

test('a shared number, a universe that is not in the show, and a block without address are found', () => {
  const apart: FixtureType = {
    ...type,
    modes: [
      {
        name: 'apart',
        channels: [
          { attribute: 'Dimmer', offsets: [1], default: 0, highlight: 255 },
          { attribute: 'ColorAdd_R', offsets: [2], default: 0, highlight: 255, block: 2 },
        ],
      },
    ],
  };
  const one = { ...lamp(1, 1, 1, 1), mode: 'apart' };
  const patch = new Patch([{ ...one, blocks: [{ universe: 2, channel: 100 }] }], [apart]);
  expect(patch.at({ universe: 2, channel: 101 })[0]?.channel?.attribute).toBe('ColorAdd_R');
  expect(findingsOf(patch)).toEqual([]);
  expect(findingsOf(new Patch([one], [apart])).map(({ sentence }) => sentence)).toEqual([
    'Lamp 1 has no address for its block 2.',
  ]);
  const clash = new Patch([lamp(5, 1, 1, 1), { ...lamp(6, 9, 1, 1), number: 5 }], [type]);
  expect(findingsOf(clash).map(({ sentence }) => sentence)).toEqual([
    'Lamp 5 is in universe 9, which is not in the show.',
    'Number 5 is shared by Lamp 5 and Lamp 6.',
  ]);
});
