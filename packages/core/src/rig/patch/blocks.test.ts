/** Acts on many lamps: blocks, gaps, lamps without an address, and types of which only the name is known. */
import { LIBRARY } from '../library';
import { type FixtureType, type Lamp } from '../../show/records';
import {
  addBlocks,
  addressesOf,
  changeMode,
  copyLamps,
  gapFor,
  gapForBlocks,
  makeTwins,
  moveTo,
  moveToNewPlace,
  patchFindings,
  readStart,
  rename,
  renumber,
  repairsOf,
  rigOf,
  setGroup,
  setTag,
  shift,
  unaddress,
} from '.';
import { type Plan } from '../../show/edit';
import { newId, typeOf, ferry, done, after, findingsOf } from './testing/rigs';

const UUID = '00000000-0000-4000-8000-000000000101';

test('a mode changed for many lets the addresses follow', () => {
  const plan = done(changeMode(ferry, ['lamp-101', 'lamp-102', 'lamp-103'], 'Basic', true, newId));
  const then = after(ferry, plan);
  expect(['lamp-101', 'lamp-102', 'lamp-103'].map((id) => then.patch.lamp(id)!.lamp.channel)).toEqual([1, 14, 27]);
  expect(findingsOf(then)).toEqual([]);
  expect(changeMode(ferry, ['lamp-101'], 'Nothing', true, newId)).toMatchObject({ ok: false });
});

test('a shift goes through universes’ ends but cuts nothing', () => {
  const plan = done(shift(ferry, ['lamp-401'], 512, newId));
  expect(plan.lines[0]).toMatchObject({ before: '7/1', after: '8/1' });
  expect(shift(ferry, ['lamp-1'], -1, newId)).toMatchObject({
    ok: false,
    why: expect.stringContaining('before 1/1') as string,
  });
  expect(shift(ferry, ['lamp-101'], 500, newId)).toMatchObject({
    ok: false,
    why: 'Lamp 101 would be cut by the end of universe 2.',
  });
});

test('numbers, names, tags and groups of a selection', () => {
  const chosen = ['lamp-102', 'lamp-101'];
  const lampsAfter = (plan: Plan) => plan.changes.map(({ after: lamp }) => lamp as Lamp);
  expect(lampsAfter(done(renumber(ferry, chosen, 900, 10))).map(({ number }) => number)).toEqual([900, 910]);
  expect(lampsAfter(done(rename(ferry, chosen, 'Rail ##', 9))).map(({ name }) => name)).toEqual(['Rail 09', 'Rail 10']);
  expect(lampsAfter(done(setTag(ferry, chosen, 'teal'))).map(({ tag }) => tag)).toEqual(['teal', 'teal']);
  const grouped = after(ferry, done(setGroup(ferry, chosen, 'Rail', true)));
  expect(grouped.patch.lamp('lamp-101')!.lamp.groups).toEqual(['Port spots', 'Rail']);
  const out = after(grouped, done(setGroup(grouped, chosen, 'Rail', false)));
  expect(out.patch.lamp('lamp-101')!.lamp.groups).toEqual(['Port spots']);
});

test('lamps move to a place that is there, or to one that is made for them', () => {
  const there = after(ferry, done(moveToNewPlace(ferry, ['lamp-101'], ' Chain locker ', newId)));
  const made = there.records.place.find(({ name }) => name === 'Chain locker');
  expect(made).toBeDefined();
  expect(there.patch.lamp('lamp-101')!.lamp.placeId).toBe(made!.id);
  const back = done(moveToNewPlace(there, ['lamp-101'], 'Quay', newId));
  expect(back.changes).toHaveLength(1);
});

describe('bulk blocks', () => {
  const layer = typeOf('media-layer');
  const master = typeOf('media-master');
  const request = {
    blocks: [
      { type: master, mode: master.modes[0]!, count: 1, pattern: 'Porthole master' },
      { type: layer, mode: layer.modes[0]!, count: 30, pattern: 'Porthole layer #' },
    ],
    start: { universe: 40, channel: 100 },
    numberFrom: 900,
    group: 'Porthole',
    placeId: null,
  };

  test('spill whole into the next universe, and replace what was there', () => {
    const then = after(ferry, done(addBlocks(ferry, request, newId)));
    const server = then.records.lamp.filter(({ groups }) => groups.includes('Porthole'));
    expect(server).toHaveLength(31);
    expect([addressesOf(server[0]!), addressesOf(server[19]!), addressesOf(server[20]!)].flat()).toEqual([
      { universe: 40, channel: 100 },
      { universe: 40, channel: 482 },
      { universe: 41, channel: 1 },
    ]);
    expect(findingsOf(then)).toEqual([]);
    const again = done(addBlocks(then, { ...request, blocks: request.blocks.slice(0, 1) }, newId));
    expect(again.lines.filter(({ after: to }) => to === '')).toHaveLength(31);
    expect(after(then, again).records.lamp.filter(({ groups }) => groups.includes('Porthole'))).toHaveLength(1);
  });

  test('lamps that lie where the blocks would are listed as going', () => {
    const plan = done(
      addBlocks(ferry, { ...request, start: { universe: 2, channel: 1 }, blocks: request.blocks.slice(0, 1) }, newId),
    );
    expect(plan.lines[0]).toEqual({ subject: '101 Port spot 1', before: '2/1', after: '' });
  });

  test('a start may be an Art-Net universe of the show', () => {
    expect(readStart('0.0.8/47', ferry.records)).toEqual({ ok: true, value: { universe: 9, channel: 47 } });
    expect(readStart('3/47', ferry.records)).toEqual({ ok: true, value: { universe: 3, channel: 47 } });
    expect(readStart('1.2.3/4', ferry.records)).toMatchObject({ ok: false });
    expect(readStart('0.0.8', ferry.records)).toMatchObject({ ok: false });
  });
});

describe('the gap that is offered', () => {
  test('for a lamp put on another: the next place where it lies on nothing', () => {
    const spans = ferry.patch.universe(2);
    const [one, other] = [spans[0]!.patched.lamp, spans[1]!.patched.lamp];
    const gap = gapFor(ferry, one.id, { universe: other.universe, channel: other.channel })!;
    const then = after(ferry, done(moveTo(ferry, one.id, gap, newId)));
    expect(patchFindings(then.patch, then.records.universe)).toEqual(
      patchFindings(ferry.patch, ferry.records.universe),
    );
    // Where it lies on nothing, nothing is offered.
    expect(gapFor(ferry, one.id, { universe: one.universe, channel: one.channel })).toBeUndefined();
  });

  test('for blocks: the next from which all of them lie on nothing', () => {
    const type = LIBRARY.find(({ kind }) => kind === 'media')!;
    const request = {
      blocks: [{ type, mode: type.modes[0]!, count: 30, pattern: 'Layer #' }],
      start: { universe: 2, channel: 1 },
      group: 'Spare server',
    };
    const gap = gapForBlocks(ferry, request)!;
    const plan = done(addBlocks(ferry, { ...request, start: gap, numberFrom: 5000, placeId: null }, newId));
    expect(plan.lines.filter(({ after: then }) => then === '')).toEqual([]);
    expect(gapForBlocks(ferry, { ...request, start: gap })).toBeUndefined();
  });
});

describe('lamps without an address', () => {
  const [one, two, other] = [101, 102, 103].map((number) => ferry.records.lamp.find((lamp) => lamp.number === number)!);
  const bare = after(ferry, done(unaddress(ferry, [one!.id, two!.id], newId)));

  test('take no slot, say so in one sentence, and get places when they are asked to', () => {
    expect(bare.patch.lamp(one!.id)!.spans).toEqual([]);
    expect(bare.patch.at({ universe: one!.universe, channel: one!.channel })).toEqual([]);
    const [finding, ...more] = findingsOf(bare);
    expect([finding!.sentence, more]).toEqual(['Lamps 101, 102 have no address.', []]);
    const [repair] = repairsOf(bare, finding!, newId);
    expect(findingsOf(after(bare, repair!.plan))).toEqual([]);
    expect(unaddress(bare, [one!.id], newId)).toMatchObject({ ok: false });
  });

  test('stay without one when all are moved on, or put in another mode; and cannot be what others follow', () => {
    const shifted = after(bare, done(shift(bare, [one!.id, other!.id], 100, newId)));
    expect(shifted.patch.lamp(one!.id)!.lamp).toMatchObject({ universe: 0, channel: 0 });
    expect(shifted.patch.lamp(other!.id)!.lamp.channel).toBe(other!.channel + 100);
    const basic = after(bare, done(changeMode(bare, [one!.id], 'Basic', false, newId)));
    expect(basic.patch.lamp(one!.id)!.lamp).toMatchObject({ mode: 'Basic', universe: 0, channel: 0, blocks: [] });
    for (const refused of [
      changeMode(bare, [one!.id], 'Basic', true, newId),
      makeTwins(bare, [one!.id, two!.id], newId),
    ])
      expect(refused).toMatchObject({ ok: false, why: expect.stringMatching(/^Lamp 101 has no address/) as string });
  });

  test('a copy has an address of its own, and is nobody that a file or a lamp knows', () => {
    const known = rigOf({
      ...ferry.records,
      lamp: ferry.records.lamp.map((lamp) =>
        lamp === one ? { ...lamp, uuid: UUID, uid: '7ff1:00000001', written: 'A1' } : lamp,
      ),
    });
    const copied = done(
      copyLamps(known, [one!.id], 990, { how: 'gaps', start: { universe: 1, channel: 1 }, gap: 0 }, newId),
    );
    const copy = after(known, copied).records.lamp.find(({ number }) => number === 990)!;
    expect(copy).toMatchObject({ uuid: '', uid: '', written: '' });
    expect(copy.universe).toBeGreaterThan(0);
  });
});

test('a type of which only the name is known takes no slots, and its lamps are told by it', () => {
  const unknown: FixtureType = {
    ...typeOf('lantern'),
    id: 'lost',
    name: 'Dory',
    unknown: true,
    modes: [{ name: 'W', channels: [] }],
  };
  const rig = rigOf({
    ...ferry.records,
    type: [...ferry.records.type, unknown],
    lamp: ferry.records.lamp.map((lamp) => (lamp.number === 101 ? { ...lamp, typeId: 'lost', mode: 'W' } : lamp)),
  });
  expect(rig.patch.at({ universe: 2, channel: 1 })).toEqual([]);
  expect(findingsOf(rig).map(({ sentence }) => sentence)).toEqual([
    'Lamp 101 waits for the type “Dory”, of which only the name is known.',
  ]);
});
