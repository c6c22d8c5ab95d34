/** How what stands on a lamp's path stood, what comes next in a walk, and whose word a mark is. */
import { nightFerry } from '../../whole/demo';
import { carDeck, nodeOf } from '../../network/node/testing/nodes';
import { rigOf, type PatchedLamp } from '../../rig/patch';
import { PLAIN_MARK, type FixtureChannel, type Mark, type Walk } from '../../show/records';
import type { RollRow } from '../../truth/roll';
import {
  changedSinceMark,
  factsOf,
  findNext,
  isLater,
  itemKey,
  itemOf,
  lastMarks,
  lightOf,
  shouldDo,
  slotsText,
  standsBy,
  stateOf,
  StoodNow,
  walkSentence,
  WHOLE_WALK,
  type NextWish,
  type Walker,
  type WalkRow,
} from '.';

const ferry = nightFerry();
const rig = rigOf(ferry);
const lamp = (number: number): PatchedLamp => rig.patch.all().find((one) => one.lamp.number === number)!;
const on = (universe: number): PatchedLamp =>
  rig.patch.all().find(({ spans, run }) => !run && spans.length === 1 && spans[0]!.universe === universe)!;

describe('how devices say that they stand', () => {
  const heard = (over: Parameters<typeof nodeOf>[1] = {}) => ({
    nodes: [nodeOf(carDeck(), over)],
    discovered: [],
    universes: [],
  });
  const facts = (...[over, universe = 3]: [Parameters<typeof nodeOf>[1]?, number?]) =>
    new StoodNow(ferry, heard(over), []).of(on(universe));

  test('the box that carries the universe: its firmware, the port with it alone, and what it does without signal', () => {
    expect(facts()).toEqual([
      { about: 'firmware of Car deck node', says: '1.9' },
      { about: 'Car deck node, port 2', says: 'sACN 3, HTP' },
      { about: 'what Car deck node does without signal', says: 'hold' },
    ]);
    expect(facts({ failSafe: null }).map(({ about }) => about)).not.toContain('what Car deck node does without signal');
  });

  test('Art-Net and latest takes precedence are said as such', () => {
    const [port] = nodeOf(carDeck()).ports;
    const ports = [{ ...port!, number: 2, sacn: false, portAddress: 9, ltp: true }];
    expect(facts({ ports })).toContainEqual({ about: 'Car deck node, port 2', says: 'Art-Net 9, LTP' });
  });

  test('a box that is gone, carries other universes or only takes in says nothing', () => {
    expect(facts({ gone: true })).toEqual([]);
    expect(facts({}, 1)).toEqual([]);
    const ports = nodeOf(carDeck()).ports.map((one) => ({ ...one, direction: 'in' as const }));
    expect(facts({ ports })).toEqual([]);
    expect(new StoodNow(ferry, undefined, []).of(on(3))).toEqual([]);
  });

  const spot = on(3);
  const row = (seen: object | undefined): RollRow => ({ lampId: spot.lamp.id, seen }) as unknown as RollRow;
  const own = (seen: object | undefined) => new StoodNow(ferry, undefined, [row(seen)]).of(spot);

  test('a lamp that told all of itself: address, mode and firmware; one that told less says nothing', () => {
    const seen = { says: 'all', startAddress: 12, mode: 'Wide', slots: 16, firmware: '2.1' };
    expect(own(seen)).toEqual([
      { about: `address of ${spot.lamp.name}`, says: '12' },
      { about: `mode of ${spot.lamp.name}`, says: 'Wide, 16 slots' },
      { about: `firmware of ${spot.lamp.name}`, says: '2.1' },
    ]);
    expect(own({ ...seen, startAddress: null })[0]).toEqual({ about: `address of ${spot.lamp.name}`, says: 'none' });
    expect([own({ ...seen, says: 'little' }), own(undefined)]).toEqual([[], []]);
  });
});

const mark = (over: Partial<Mark>): Mark => ({
  ...PLAIN_MARK,
  ...{ id: 'm', rev: 2, walkId: 'w', lampId: 'l', result: 'proved', by: 'Mira', at: '1' },
  ...over,
});

describe('whose word counts', () => {
  test('the later of two by their clocks; at one moment the one that came later', () => {
    const [early, late] = [mark({ at: '2026-11-26T18:01:00Z', rev: 9 }), mark({ at: '2026-11-26T18:02:00Z', rev: 1 })];
    expect([isLater(late, early), isLater(early, late)]).toEqual([true, false]);
    const [first, second] = [mark({ at: 'same', rev: 3 }), mark({ at: 'same', rev: 4 })];
    expect([isLater(second, first), isLater(first, second), isLater(first, first)]).toEqual([true, false, true]);
  });

  test('the last word of each person, the newest first, each item by itself', () => {
    const last = lastMarks([
      mark({ by: 'Mira', at: '1', result: 'failed' }),
      mark({ by: 'Mira', at: '3', result: 'proved' }),
      mark({ by: 'Jory', at: '4', result: 'failed' }),
      mark({ by: 'Ivo', at: '2', result: 'skipped' }),
      mark({ by: 'Ivo', at: '9', channel: 2, result: 'failed' }),
    ]);
    expect(last.get('l')!.map(({ by, result }) => `${by} ${result}`)).toEqual([
      'Jory failed',
      'Mira proved',
      'Ivo skipped',
    ]);
    expect(last.get('l#2')!.map(({ by }) => by)).toEqual(['Ivo']);
  });

  test('an item stands by the newest who looked; where all skipped it, by the newest of them', () => {
    const skipped = mark({ id: 'a', result: 'skipped' });
    const looked = mark({ id: 'b', result: 'failed' });
    expect([standsBy([skipped, looked]).id, standsBy([skipped, mark({ id: 'c', result: 'skipped' })]).id]).toEqual([
      'b',
      'a',
    ]);
    expect([stateOf([]), stateOf([skipped]), stateOf([skipped, looked])]).toEqual(['untried', 'skipped', 'failed']);
  });

  test('only what a device says otherwise has changed: not what it says alike, nor what it does not say', () => {
    const stood = [
      { about: 'a', says: '1' },
      { about: 'b', says: '1' },
      { about: 'c', says: '1' },
    ];
    const now = [
      { about: 'a', says: '1' },
      { about: 'b', says: '2' },
      { about: 'd', says: '3' },
    ];
    expect(changedSinceMark(mark({ stood }), [], now)).toEqual(['b: 1 then, 2 now']);
  });

  test('keys name a lamp or one of its channels', () => {
    expect([itemKey('l', 0), itemKey('l', 3)]).toEqual(['l', 'l#3']);
    expect([itemOf('l'), itemOf('l#3')]).toEqual([
      { key: 'l', lampId: 'l', channel: 0 },
      { key: 'l#3', lampId: 'l', channel: 3 },
    ]);
  });
});

test('a walk in a sentence: one or many, what is left, and how many of the proved are old', () => {
  const row = (state: WalkRow['state'], changed: string[] = []): WalkRow => ({
    ...{ key: '', lampId: '', channel: 0, said: [] },
    ...{ state, changed },
  });
  expect(walkSentence([row('proved')], 'lamp')).toBe('1 of 1 lamp proved.');
  expect(walkSentence([], 'channel')).toBe('0 of 0 channels proved.');
  const all = [
    row('proved'),
    row('proved', ['x']),
    row('failed', ['x']),
    row('disputed'),
    row('skipped'),
    row('untried'),
  ];
  expect(walkSentence(all, 'channel')).toBe(
    '2 of 6 channels proved, 1 of them before a change. 1 failed, 1 disputed, 1 skipped, 1 untried.',
  );
});

describe('what comes next', () => {
  const ids = [101, 102, 103].map((number) => lamp(number).lamp.id);
  const walk: Walk = {
    ...{ id: 'w', rev: 1, name: 'Before the doors', by: 'Mira', at: '2026-11-26T18:00:00Z' },
    ...{ covers: { kind: 'chosen', id: '', part: '' }, order: 'number', unit: 'lamp', pictures: ['full'] },
    lampIds: ids,
  };
  const phone = (at: string): Walker => ({ id: 'p', by: 'Jory', part: WHOLE_WALK, at, heardAt: 0 });
  const next = (wish: Partial<NextWish> = {}, marks: readonly Mark[] = []) =>
    findNext(
      { ...rig, records: { ...ferry, walk: [walk], mark: marks } },
      {
        ...{ walkId: 'w', part: WHOLE_WALK, want: 'next', from: '', this: '', done: [], others: [], light: false },
        ...wish,
      },
    );

  test('none of a walk that there is not', () =>
    expect(next({ walkId: 'x' })).toEqual({
      ...{ name: undefined, item: undefined, heldBy: '', program: undefined, left: 0, states: [] },
    }));

  test('the next that nobody has marked, here or on the phone; how many are left', () => {
    const marked = mark({ lampId: ids[0]!, result: 'failed', by: 'Mira', at: '1' });
    expect(next({}, [marked])).toMatchObject({
      ...{ name: 'Before the doors', item: { key: ids[1] }, left: 2 },
      states: [{ key: ids[0], state: 'failed' }],
    });
    expect(next({ done: [ids[1]!] }, [marked])).toMatchObject({ item: { key: ids[2] }, left: 1 });
    expect(next({ done: ids })).toMatchObject({ item: undefined, left: 0 });
    // Marks of another walk are another walk's.
    expect(next({}, [{ ...marked, walkId: 'other' }])).toMatchObject({ left: 3, states: [] });
  });

  test('to stay is to have again what one had, though it is marked', () =>
    expect(next({ want: 'stay', from: ids[1]!, done: [ids[1]!] }).item?.key).toBe(ids[1]));

  test('a certain one, unless somebody has it in hand', () => {
    expect(next({ want: 'this', this: ids[2]! })).toMatchObject({ item: { key: ids[2] }, heldBy: '' });
    expect(next({ want: 'this', this: ids[2]!, others: [phone(ids[2]!)] })).toMatchObject({
      item: undefined,
      heldBy: 'Jory',
    });
    expect(next({ want: 'this', this: ids[2]!, others: [phone(''), phone(ids[1]!)] })).toMatchObject({
      ...{ item: { key: ids[2] }, heldBy: '' },
    });
    expect(next({ want: 'this', this: 'gone', others: [phone('')] })).toMatchObject({ item: undefined, heldBy: '' });
    // Who goes on past it is not said to be held up.
    expect(next({ others: [phone(ids[0]!)] })).toMatchObject({ item: { key: ids[1] }, heldBy: '' });
  });

  test('what it shows, where that is wanted', () => {
    expect(next({ light: false }).program).toBeUndefined();
    expect(next({ light: true }).program).toMatchObject({ ok: true });
    expect(next({ light: true, done: ids }).program).toBeUndefined();
  });

  test('lamps are shared by place, by what lights together, and by the ports that carry them', () => {
    const facts = factsOf(ferry, rig.patch);
    const one = lamp(101);
    const its = facts({ key: one.lamp.id, lampId: one.lamp.id, channel: 0 });
    expect(its).toMatchObject({ place: one.lamp.placeId, light: `${one.lamp.universe}/${one.lamp.channel}` });
    const carrying = ferry.machine.flatMap(({ id, ports }) =>
      ports
        .filter(({ use, universe }) => use === 'out' && universe === one.lamp.universe)
        .map(({ number }) => `${id} ${number}`),
    );
    expect([...its.ports].sort()).toEqual(expect.arrayContaining(carrying));
    expect(carrying.length).toBeGreaterThan(0);
    expect(lightOf({ ...one, lamp: { ...one.lamp, universe: 0, channel: 0 } })).toBe(one.lamp.id);
  });
});

test.each([
  ['Dimmer', 'It lights.'],
  ['Shutter1', 'Its shutter opens.'],
  ['Shutter1Strobe', 'It flashes.'],
  ['StrobeDuration', 'It flashes.'],
  ['Tilt', 'It tips to one end.'],
  ['ColorAdd_R', 'It shines red.'],
  ['Gobo1', 'A picture comes into its light.'],
  ['Gobo1Pos', 'Its picture turns.'],
  ['Prism1', 'Its light is split.'],
  ['Frost1', 'Its edge goes soft.'],
  ['Focus1', 'Its edge goes sharp or soft.'],
  ['Zoom', 'Its beam grows wide or narrow.'],
  ['Iris', 'Its beam closes.'],
  ['Fog1', 'It makes haze.'],
  ['Fans', 'Its fan runs.'],
  ['Relay1', 'Its relay switches.'],
])('%s alone: %s', (attribute, sentence) => {
  const channel: FixtureChannel = { attribute, offsets: [3], default: 0, highlight: 255 };
  expect(shouldDo(channel)).toBe(sentence);
  expect(shouldDo({ ...channel, cell: 4 })).toBe(`Cell 4: ${sentence}`);
});

test('what has no word of its own goes to its full; slots are named one or two', () => {
  expect(shouldDo({ attribute: 'Odd', offsets: [3], default: 0, highlight: 255 })).toMatch(/ goes to its full\.$/);
  const slots = (offsets: number[]) => slotsText({ attribute: 'Pan', offsets, default: 0, highlight: 255 });
  expect([slots([3]), slots([1, 2])]).toEqual(['slot 3', 'slots 1 and 2']);
});
