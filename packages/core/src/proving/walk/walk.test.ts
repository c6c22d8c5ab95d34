/** Walks: what they cover, in which order, how marks stand, and what makes them old. */
import { nightFerry } from '../../whole/demo';
import { recordsAfter } from '../../show/edit';
import { latestSightings, sightingKey } from '../../truth/known';
import { rigOf, type PatchedLamp } from '../../rig/patch';
import { PLAIN_MARK, WALK_ORDERS, type Mark, type ShowRecords, type Walk } from '../../show/records';
import {
  StoodNow,
  channelName,
  coveredLamps,
  everyLamp,
  judgedWalk,
  ordered,
  shouldSee,
  stateOf,
  swapsOf,
  walkItems,
  walkSentence,
  wayLength,
} from '.';

const ferry = nightFerry();
const { patch } = rigOf(ferry);
const lamp = (number: number): PatchedLamp => patch.all().find((one) => one.lamp.number === number)!;
const NOBODY = { failed: new Set<string>(), changed: new Set<string>() };
const nothing = new StoodNow(ferry, undefined, []);

const walk: Walk = {
  ...{ id: 'w', rev: 1, name: 'Before the doors', by: 'Mira', at: '2026-11-26T18:00:00Z' },
  ...{ covers: { kind: 'chosen', id: '', part: '' }, order: 'number', unit: 'lamp', pictures: ['full'] },
  lampIds: [101, 102, 103].map((number) => lamp(number).lamp.id),
};
const mark = (over: Partial<Mark> = {}): Mark => ({
  ...{ ...PLAIN_MARK, id: `m${Math.random()}`, rev: 2, walkId: 'w', lampId: lamp(101).lamp.id, result: 'proved' },
  ...{ by: 'Mira', at: '2026-11-26T18:01:00Z', knew: 1 },
  ...over,
});
const withMarks = (marks: readonly Mark[], records: ShowRecords = ferry): ShowRecords => ({
  ...records,
  walk: [walk],
  mark: marks,
});
const judge = (records: ShowRecords, now = nothing) => judgedWalk(walk, records, rigOf(records).patch, now);

describe('what is covered', () => {
  const covered = (kind: Walk['covers']['kind'], id = '', part = '', chosen: readonly string[] = [], before = NOBODY) =>
    coveredLamps({ kind, id, part }, ferry, patch, new Set(chosen), before).map((one) => one.lamp.number);

  test('the rig, a place, a universe, a choice, what failed', () => {
    expect(covered('rig')).toHaveLength(patch.all().length);
    const place = ferry.place[2]!;
    expect(covered('place', place.id).sort()).toEqual(
      patch
        .all()
        .filter((one) => one.lamp.placeId === place.id)
        .map((one) => one.lamp.number)
        .sort(),
    );
    expect(covered('universe', '2')).toContain(102);
    expect(covered('chosen', '', '', [lamp(301).lamp.id])).toEqual([301]);
    expect(covered('failed', '', '', [], { ...NOBODY, failed: new Set([lamp(51).lamp.id]) })).toEqual([51]);
  });

  test('a port: the lamps on the universe that leaves it', () => {
    const node = ferry.machine.find(({ ports }) => ports.some(({ use }) => use === 'out'))!;
    const port = node.ports.find(({ use }) => use === 'out')!;
    const on = covered('port', node.id, String(port.number));
    expect(on.length).toBeGreaterThan(0);
    for (const number of on) expect(lamp(number).spans.map(({ universe }) => universe)).toContain(port.universe);
  });
});

describe('the order', () => {
  test.each(WALK_ORDERS)('%s: every lamp once', (order) => {
    const all = ordered(patch.all(), order, ferry.place);
    expect(new Set(all.map((one) => one.lamp.id)).size).toBe(patch.all().length);
    expect(all).toHaveLength(patch.all().length);
  });

  test('the shortest way is far shorter than by number, and begins at the same lamp', () => {
    const [number, way] = (['number', 'way'] as const).map((order) => ordered(patch.all(), order, ferry.place));
    expect(wayLength(way!)).toBeLessThan(wayLength(number!) / 2);
    expect(way![0]).toBe(number![0]);
  });

  test('by address the next slot follows, by place those of one place stand together', () => {
    const address = ordered(patch.all(), 'address', ferry.place).map(
      ({ lamp: { universe, channel } }) => universe * 1000 + channel,
    );
    expect(address).toEqual([...address].sort((a, b) => a - b));
    const places = ordered(patch.all(), 'place', ferry.place).map(({ lamp: { placeId } }) => placeId);
    expect(places.filter((one, i) => one !== places[i - 1])).toHaveLength(new Set(places).size);
  });

  test('channel by channel: each channel of each lamp, in words', () => {
    const items = walkItems({ ...walk, unit: 'channel' }, patch);
    expect(items).toHaveLength(walk.lampIds.reduce((sum, id) => sum + patch.lamp(id)!.mode.channels.length, 0));
    const spot = lamp(101);
    for (let i = 1; i <= spot.mode.channels.length; i += 1) expect(shouldSee(spot, i)).toMatch(/^[A-Z].*\.$/);
    expect(shouldSee(spot, spot.mode.channels.findIndex(({ attribute }) => attribute === 'Pan') + 1)).toBe(
      'It turns to one side.',
    );
  });
});

describe('marks', () => {
  test('the last word of each person counts; two who differ are a dispute, one who skipped is none', () => {
    const at = (minute: number) => `2026-11-26T18:0${minute}:00Z`;
    const rows = judge(
      withMarks([
        mark({ result: 'failed', why: 'dark', at: at(1) }),
        mark({ result: 'proved', at: at(2) }),
        mark({ lampId: lamp(102).lamp.id, result: 'proved' }),
        mark({ lampId: lamp(102).lamp.id, result: 'failed', why: 'flickers', by: 'Jory', at: at(3) }),
        mark({ lampId: lamp(103).lamp.id, result: 'failed', why: 'wrong colour' }),
        mark({ lampId: lamp(103).lamp.id, result: 'skipped', by: 'Jory', at: at(3) }),
      ]),
    );
    expect(rows.map(({ state }) => state)).toEqual(['proved', 'disputed', 'failed']);
    expect(rows[1]!.said.map(({ by, result }) => [by, result])).toEqual([
      ['Jory', 'failed'],
      ['Mira', 'proved'],
    ]);
    expect(walkSentence(rows, 'lamp')).toBe('1 of 3 lamps proved. 1 failed, 1 disputed.');
    expect(stateOf(undefined)).toBe('untried');
  });

  test('what was said in an earlier walk is no dispute: the last walk in which somebody looked counts', () => {
    const id = lamp(101).lamp.id;
    const earlier = mark({ walkId: 'before', result: 'failed', why: 'dark', by: 'Jory', at: '2026-11-25T18:00:00Z' });
    const state = (...marks: Mark[]) => everyLamp(withMarks(marks), patch, nothing).get(id)?.state;
    expect(state(earlier, mark())).toBe('proved');
    expect(state(earlier, mark(), mark({ result: 'failed', by: 'Jory' }))).toBe('disputed');
    // One who only skipped it later has not looked.
    expect(state(earlier, mark({ result: 'skipped' }))).toBe('failed');
  });

  test('a mark that came late says what its person saw then: an older one never stands above a newer', () => {
    const late = mark({ rev: 9, result: 'failed', why: 'dark', at: '2026-11-26T17:00:00Z' });
    expect(judge(withMarks([mark({ rev: 5 }), late]))[0]!.state).toBe('proved');
  });

  test('they are what people saw, for Why? as well', () => {
    const seen = latestSightings(
      withMarks([
        mark({ result: 'failed', why: 'dark' }),
        mark({ lampId: 'x', result: 'failed', why: 'wrong colour' }),
      ]),
    );
    const answer = (id: string, question: string) =>
      seen.get(sightingKey({ kind: 'lamp', id, part: '' }, question))?.answer;
    expect([answer(lamp(101).lamp.id, 'lit'), answer(lamp(101).lamp.id, 'right')]).toEqual(['no', 'no']);
    expect([answer('x', 'lit'), answer('x', 'right')]).toEqual(['yes', 'no']);
  });
});

describe('what is proved grows old', () => {
  const changedBy = (kind: 'lamp' | 'type' | 'universe' | 'machine', id: string, over: object, rev = 5) => {
    const before = ferry[kind].find((one) => one.id === id)!;
    const after = { ...before, ...over };
    const made = recordsAfter(ferry, [{ kind, id, rev: before.rev, after } as never]);
    return { ...made, [kind]: made[kind].map((one) => (one.id === id ? { ...one, rev } : one)) } as ShowRecords;
  };
  const spot = lamp(101);
  const node = ferry.machine.find(({ ports }) =>
    ports.some(({ use, universe }) => use === 'out' && universe === spot.lamp.universe),
  )!;
  const oldBy = (records: ShowRecords) => judge(withMarks([mark()], records))[0]!.changed;

  test('an edit of the lamp, its type, its universe or its node is named', () => {
    expect(oldBy(ferry)).toEqual([]);
    expect(oldBy(changedBy('lamp', spot.lamp.id, { channel: 400 }))).toEqual([spot.lamp.name]);
    expect(oldBy(changedBy('type', spot.type.id, { maker: 'Tern' }))).toEqual([`Tern ${spot.type.name}`]);
    const universe = ferry.universe.find(({ number }) => number === spot.lamp.universe)!;
    expect(oldBy(changedBy('universe', universe.id, { name: 'Other' }))).toEqual([`universe ${universe.number}`]);
    expect(oldBy(changedBy('machine', node.id, { notes: 'x' }))).toContain(node.name);
  });

  test('of another lamp or node it does not', () => {
    expect(oldBy(changedBy('lamp', lamp(301).lamp.id, { channel: 400 }))).toEqual([]);
  });

  test('what was edited while the phone was away counts as later, though the mark came after it', () => {
    const records = changedBy('lamp', spot.lamp.id, { channel: 400 }, 5);
    expect(judge(withMarks([mark({ rev: 8, knew: 4 })], records))[0]!.changed).toEqual([spot.lamp.name]);
    expect(judge(withMarks([mark({ rev: 8, knew: 5 })], records))[0]!.changed).toEqual([]);
  });

  test('a push to its node, and setting it anew', () => {
    const pushed = { id: 's', rev: 7, name: 'x', at: '', machineId: node.id, about: 'Kept by itself', ports: [] };
    expect(oldBy({ ...ferry, snapshot: [...ferry.snapshot, pushed] })).toEqual([`a push to ${node.name}`]);
    // One that a person kept is no push.
    expect(oldBy({ ...ferry, snapshot: [...ferry.snapshot, { ...pushed, about: '' }] })).toEqual([]);
    const known = changedBy('lamp', spot.lamp.id, { uid: '7ff1:00000001' }, 1);
    const set = {
      id: 'k',
      rev: 7,
      name: 'x',
      at: '',
      lamps: [{ uid: '7ff1:00000001', address: 1, personality: 1, label: '' }],
    };
    expect(oldBy({ ...known, lampSettings: [set] })).toEqual([`how ${spot.lamp.name} is set`]);
  });

  test('another firmware, or another setting, of whatever said how it stood', () => {
    const stood = [{ about: 'firmware of Foredeck node', says: '1.2' }];
    const now = { of: () => [{ about: 'firmware of Foredeck node', says: '1.3' }] } as unknown as StoodNow;
    const silent = { of: () => [] } as unknown as StoodNow;
    const records = withMarks([mark({ stood })]);
    expect(judge(records, now)[0]!.changed).toEqual(['firmware of Foredeck node: 1.2 then, 1.3 now']);
    // Who says nothing now is not said to be otherwise.
    expect(judge(records, silent)[0]!.changed).toEqual([]);
    expect(walkSentence(judge(records, now), 'lamp')).toBe(
      '1 of 3 lamps proved, 1 of them before a change. 2 untried.',
    );
    expect(everyLamp(records, patch, now).get(spot.lamp.id)).toMatchObject({
      state: 'proved',
      changed: ['firmware of Foredeck node: 1.2 then, 1.3 now'],
    });
  });
});

describe('channels that do each other’s work', () => {
  const spot = lamp(101);
  const of = (attribute: string) => spot.mode.channels.findIndex((one) => one.attribute === attribute) + 1;
  const [pan, tilt] = [of('Pan'), of('Tilt')];
  const swapped = [
    mark({ channel: pan, result: 'failed', why: 'does something else', did: tilt }),
    mark({ channel: tilt, result: 'failed', why: 'does something else', did: pan }),
  ];

  test('are recognised, and the type is offered with them exchanged', () => {
    const [swap] = swapsOf(
      spot,
      swapped,
      ferry.lamp.filter(({ typeId }) => typeId === spot.type.id),
    );
    expect(swap!.sentence).toBe(`Pan and Tilt of 101 ${spot.lamp.name} are swapped.`);
    const repair = swap!.repairs[swap!.repairs.length - 1]!;
    const after = recordsAfter(ferry, repair.changes);
    const channels = rigOf(after).patch.lamp(spot.lamp.id)!.mode.channels;
    expect(channels[pan - 1]!.offsets).toEqual(spot.mode.channels[tilt - 1]!.offsets);
    expect(channels[tilt - 1]!.offsets).toEqual(spot.mode.channels[pan - 1]!.offsets);
    expect(repair.lines[0]!.after).toMatch(/for \d+ other lamps too$/);
    expect([channelName(spot.mode.channels[pan - 1]!), swap!.channels]).toEqual(['Pan', [pan, tilt]]);
  });

  test('one alone is no swap', () => expect(swapsOf(spot, swapped.slice(0, 1), [])).toEqual([]));

  test('a mode of the type that is just so is offered first', () => {
    const [swap] = swapsOf(spot, swapped, []);
    const typed = swap!.repairs[0]!.changes[0]!.after as PatchedLamp['type'];
    const other = { ...typed.modes.find(({ name }) => name === spot.mode.name)!, name: 'As seen' };
    const type = { ...spot.type, modes: [...spot.type.modes, other] };
    const [better] = swapsOf({ ...spot, type }, swapped, []);
    expect(better!.repairs.map(({ sentence }) => sentence)[0]).toMatch(/into the mode As seen/);
  });
});
