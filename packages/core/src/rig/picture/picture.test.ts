/** Test pictures: nothing but the chosen moves, one unit at a time is one, and a lamp shows what a picture says. */
import fc from 'fast-check';
import { nightFerry } from '../../whole/demo';
import { rigOf, type PatchedLamp } from '../patch';
import { WALK_PICTURES } from '../../show/records';
import { Light } from '../stage';
import { asTake } from '../level';
import {
  TEST_PICTURES,
  blinked,
  levelAt,
  looksOf,
  looksProgram,
  pictureOfLamps,
  pictureOfUniverses,
  universesIn,
  type Program,
} from '.';

const { patch } = rigOf(nightFerry());
const lamp = (number: number): PatchedLamp => patch.all().find((one) => one.lamp.number === number)!;
const keyOf = (universe: number) => universe;
const some = [101, 102, 301, 302, 371].map(lamp);
const NEVER = () => 0.5;

const levels = ({ tracks }: Program, step: number, level = 1): Map<string, number> =>
  new Map(tracks.map((track) => [`${track.key}/${track.slot + 1}`, levelAt(track, step, level, NEVER)]));
const shines = (one: PatchedLamp, at: ReadonlyMap<string, number>): boolean =>
  Math.max(...new Light(one).whole((universe, channel) => at.get(`${universe}/${channel}`) ?? 0)) > 0.01;

test.each(TEST_PICTURES)('%s: every slot of the chosen lamps and no other, each once, 0–255', (picture) => {
  const program = pictureOfLamps(picture, some, keyOf);
  const places = program.tracks.map(({ key, slot }) => `${key}/${slot + 1}`);
  const own = new Set(some.flatMap((one) => Object.keys(asTake(one, null))));
  expect(new Set(places)).toEqual(own);
  expect(places).toHaveLength(own.size);
  fc.assert(
    fc.property(
      fc.double({ min: -1000, max: 1e6, noNaN: true }),
      fc.double({ min: 0, max: 1, noNaN: true }),
      (step, level) => {
        const wrong = [...levels(program, step, level).values()].filter(
          (value) => !Number.isInteger(value) || value < 0 || value > 255,
        );
        expect(wrong).toEqual([]);
      },
    ),
  );
});

test('one at a time lights each lamp once in its round, and never two', () => {
  const program = pictureOfLamps('one at a time', some, keyOf);
  expect(program.steps).toBe(some.length);
  const lit = Array.from({ length: program.steps }, (_, step) => {
    const at = levels(program, step);
    return some.filter((one) => shines(one, at)).map((one) => one.lamp.number);
  });
  // Relays have no light that a level makes; each of the others is lit alone.
  expect(lit.slice(0, 4)).toEqual([[101], [102], [301], [302]]);
});

test('every other: the two halves take turns', () => {
  const program = pictureOfUniverses('every other', [{ number: 3, key: 7 }]);
  const [even, odd] = [0, 1].map((step) => levels(program, step));
  expect([even!.get('7/1'), even!.get('7/2'), odd!.get('7/1'), odd!.get('7/2')]).toEqual([255, 0, 0, 255]);
  expect([...universesIn(program)]).toEqual([7]);
});

test('a ramp goes up and down, and follows the level', () => {
  const program = pictureOfUniverses('ramp', [{ number: 3, key: 7 }]);
  const at = (step: number, level = 1) => levels(program, step, level).get('7/9');
  expect([at(0), at(2), at(4), at(6), at(8)]).toEqual([0, 128, 255, 128, 0]);
  expect(at(4, 0.5)).toBe(128);
});

test('the level dims light and moves no head', () => {
  const one = lamp(101);
  const program = pictureOfLamps('pan and tilt', [one], keyOf);
  const [full, half] = [1, 0.5].map((level) => levels(program, 2, level));
  const differing = [...full!].filter(([where, value]) => half!.get(where) !== value).map(([where]) => where);
  const dimmer = one.mode.channels.find(({ attribute }) => attribute === 'Dimmer')!;
  expect(differing).toHaveLength(dimmer.offsets.length);
});

test('the corners of a square are four different ways to look', () => {
  const one = lamp(101);
  const program = pictureOfLamps('pan and tilt', [one], keyOf);
  const ways = [0, 1, 2, 3].map((step) => JSON.stringify([...levels(program, step)]));
  expect(new Set(ways).size).toBe(4);
});

test('a number is blinked digit by digit, nought ten times', () => {
  const count = (number: number) => blinked(number).filter((one) => one === 1).length;
  expect([count(1), count(12), count(10), count(305)]).toEqual([1, 3, 11, 18]);
  // Two digits are told apart: between them it is dark for longer than between two blinks.
  expect(blinked(11).join('')).toMatch(/^10001000000/);
});

test('a walk’s pictures: full lights every lamp that has light; a list is gone through in its order', () => {
  for (const one of patch.all()) {
    const has = one.mode.channels.some(({ attribute }) => /^(Dimmer|ColorAdd_)/.test(attribute));
    const program = looksProgram(one, looksOf(one, ['full']), keyOf);
    if (has) expect([one.lamp.number, shines(one, levels(program, 0))]).toEqual([one.lamp.number, true]);
  }
  const says = looksOf(lamp(101), ['full', 'pan and tilt', 'full']).map((look) => look.says);
  expect(says[0]).toBe('Full');
  expect(says.slice(1, 5)).toEqual(['Pan to one side', 'Pan to the other', 'Tilt to one side', 'Tilt to the other']);
  expect(says[says.length - 1]).toBe('Full');
});

test('each channel by itself: as many looks as channels, and what makes light is seen', () => {
  for (const one of [lamp(101), lamp(102), lamp(51)]) {
    const looks = looksOf(one, ['channels']);
    expect(looks).toHaveLength(one.mode.channels.length);
    const dimmer = one.mode.channels.findIndex(({ attribute }) => attribute === 'Dimmer');
    if (dimmer < 0) continue;
    const program = looksProgram(one, looks, keyOf);
    expect([one.lamp.number, shines(one, levels(program, dimmer))]).toEqual([one.lamp.number, true]);
  }
});

test('nothing to show is full, so that a walk lights something at every lamp', () => {
  for (const picture of WALK_PICTURES)
    for (const one of some) expect(looksOf(one, [picture]).length).toBeGreaterThan(0);
});
