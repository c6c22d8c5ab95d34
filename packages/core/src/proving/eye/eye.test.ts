/** Matching by eye: what is lit next, what halves tell, what is taken back, and how states look. */
import fc from 'fast-check';
import { nightFerry } from '../../whole/demo';
import { rigOf } from '../../rig/patch';
import {
  answered,
  freeStretches,
  itemOfUid,
  keyOfItem,
  levelsOfLook,
  levelsOfStretch,
  likelyNext,
  lit,
  LOOKS,
  plannedStretches,
  takenBack,
  tapped,
  withOutcome,
  type EyeItem,
  type EyeSession,
} from '.';

const session = (waiting: readonly EyeItem[], over: Partial<EyeSession> = {}): EyeSession => ({
  ...{ by: 'Ivo', how: 'asked', lampIds: [], between: false, first: waiting, waiting, steps: [] },
  ...over,
});
const stretch = (first: number, last: number): EyeItem => ({ uid: '', universe: 1, first, last, of: '', among: [] });
const one = () => 1;
const same = (next: EyeSession) => next;

test('one lamp after the other, until none is left', () => {
  let now = session(['a', 'b'].map(itemOfUid));
  expect(lit(now)?.uid).toBe('a');
  now = answered(now, 'tapped', ['lamp-1'], one);
  expect(lit(now)?.uid).toBe('b');
  now = answered(now, 'not seen', [], one);
  expect(lit(now)).toBeUndefined();
  expect([...tapped(now)]).toEqual([['lamp-1', itemOfUid('a')]]);
  // At its end an answer changes nothing.
  expect(answered(now, 'tapped', ['lamp-2'], one)).toBe(now);
});

test('the last answer is taken back, and what it was about is lit again', () => {
  const begun = session(['a', 'b'].map(itemOfUid));
  const once = answered(begun, 'tapped', ['lamp-1'], one);
  const twice = withOutcome(answered(once, 'skipped', [], one), 'a', { set: 'done', outcome: 'Set.' });
  expect(takenBack(twice, one, same)).toEqual(withOutcome(once, 'a', { set: 'done', outcome: 'Set.' }));
  expect(takenBack(takenBack(twice, one, same), one, same)).toEqual(begun);
});

/** A person who knows where the lamps are, and is asked until nothing waits. */
function find(where: ReadonlyMap<string, number>, width: number, begun: EyeSession) {
  let now = begun;
  let asked = 0;
  for (let item = lit(now); item; item = lit(now)) {
    const { first, last } = item;
    const here = [...where].filter(([, at]) => at <= last && at + width - 1 >= first).map(([id]) => id);
    now = here.length > 0 ? answered(now, 'tapped', here, () => width) : answered(now, 'not seen', [], () => width);
    asked += 1;
    if (asked > 500) throw new Error('it never ends');
  }
  return { found: tapped(now), asked };
}

test('halves tell where each lamp is, and what follows of itself is not asked', () => {
  const { found, asked } = find(new Map([['lamp-1', 200]]), 1, session([stretch(1, 512)], { how: 'stretches' }));
  expect(found.get('lamp-1')).toMatchObject({ first: 200, last: 200 });
  // Nine halvings of 512 slots, and the whole stretch before them.
  expect(asked).toBeLessThanOrEqual(10);
});

test('any lamps of one slot at any places are found, each at its own', () => {
  fc.assert(
    fc.property(fc.uniqueArray(fc.integer({ min: 1, max: 256 }), { minLength: 1, maxLength: 8 }), (places) => {
      const where = new Map(places.map((at, i) => [`lamp-${i}`, at]));
      const { found } = find(where, 1, session([stretch(1, 256)], { how: 'stretches' }));
      for (const [id, at] of where) expect(found.get(id)).toMatchObject({ first: at, last: at });
    }),
    { numRuns: 200 },
  );
});

test('two that share a slot stand on it both', () => {
  const { found } = find(
    new Map([
      ['lamp-1', 9],
      ['lamp-2', 9],
    ]),
    1,
    session([stretch(1, 16)], { how: 'stretches' }),
  );
  expect([...found.values()].map(({ first }) => first)).toEqual([9, 9]);
});

test('the likely next is the one after the last, in the step of the last two', () => {
  const lamps = [10, 12, 14, 16, 18].map((number) => ({ id: `lamp-${number}`, number }));
  let now = session(['a', 'b', 'c', 'd'].map(itemOfUid));
  expect(likelyNext(lamps, now)).toBe('lamp-10');
  now = answered(now, 'tapped', ['lamp-12'], one);
  expect(likelyNext(lamps, now)).toBe('lamp-14');
  now = answered(now, 'tapped', ['lamp-16'], one);
  // In steps of four nobody follows: the next higher that is open
  expect(likelyNext(lamps, now)).toBe('lamp-18');
  now = answered(now, 'tapped', ['lamp-14'], one);
  expect(likelyNext(lamps, now)).toBe('lamp-18');
});

const ferry = rigOf(nightFerry());
const patched = (...ids: string[]) => ids.map((id) => ferry.patch.lamp(id)!);

test('planned stretches are as wide as their lamps, and what is free lies between all lamps', () => {
  const lamps = patched('lamp-51', 'lamp-21');
  expect(plannedStretches(lamps).map((item) => [keyOfItem(item), item.of])).toEqual([
    ['1/13-13', 'lamp-21'],
    ['1/37-41', 'lamp-51'],
  ]);
  const free = freeStretches(ferry.patch, lamps);
  expect(free.map(keyOfItem)).toEqual(['1/175-512']);
  for (const { universe, first, last } of free)
    for (let channel = first; channel <= last; channel += 1) expect(ferry.patch.at({ universe, channel })).toEqual([]);
});

test('a planned stretch is lit as its lamp is highlighted; of another nobody knows what is there', () => {
  const [item] = plannedStretches(patched('lamp-101'));
  const levels = new Map(levelsOfStretch(item!, ferry.patch));
  const mode = ferry.patch.lamp('lamp-101')!.mode;
  const pan = mode.channels.find(({ attribute }) => attribute === 'Pan')!;
  expect(levels.get(item!.first + pan.offsets[0]! - 1)).toBe(pan.highlight >> 8);
  expect(levelsOfStretch(stretch(4, 6), ferry.patch)).toEqual([
    [4, 255],
    [5, 255],
    [6, 255],
  ]);
});

test('the three looks are told apart, with colours and without', () => {
  for (const id of ['lamp-51', 'lamp-21', 'lamp-301', 'lamp-131', 'lamp-91', 'lamp-381']) {
    const { mode } = ferry.patch.lamp(id)!;
    const looks = LOOKS.map((look) => JSON.stringify(levelsOfLook(mode, look)));
    expect(new Set(looks).size).toBe(3);
  }
  // A run of cells shows its first, and no other.
  const batten = ferry.patch.lamp('lamp-381')!.mode;
  const bright = new Map(levelsOfLook(batten, 'now'));
  const red = (cell: number) =>
    batten.channels.find((one) => one.cell === cell && one.attribute === 'ColorAdd_R')!.offsets[0]! - 1;
  expect([bright.get(red(1)), bright.get(red(2))]).toEqual([255, 0]);
});
