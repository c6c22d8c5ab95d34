import fc from 'fast-check';
import { nightFerry } from '../../whole/demo';
import { blocksOf } from '../fixture';
import { LIBRARY } from '../library';
import { emptyShow, type FixtureType, type Lamp, type ShowRecords, type Universe } from '../../show/records';
import {
  addBlocks,
  addLamps,
  addressesOf,
  changeMode,
  closeGaps,
  consequences,
  copyLamps,
  gapFor,
  gapForBlocks,
  lastChannel,
  makeTwins,
  missingUniverses,
  moveTo,
  moveToNewPlace,
  partTwins,
  patchFindings,
  readdress,
  readStart,
  removeLamps,
  rename,
  renumber,
  repairsOf,
  type Rig,
  rigOf,
  setGroup,
  setTag,
  shift,
  unaddress,
} from '.';
import { type Plan, recordsAfter } from '../../show/edit';

const UUID = '00000000-0000-4000-8000-000000000101';
let ids = 0;
const newId = () => `new-${(ids += 1)}`;
const typeOf = (id: string): FixtureType => LIBRARY.find((one) => one.id === `type-${id}`)!;
const ferry = rigOf(nightFerry());

const done = (result: ReturnType<typeof readdress>): Plan => {
  if (!result.ok) throw new Error(result.why);
  return result.value;
};
const after = (rig: Rig, plan: Plan): Rig => rigOf(recordsAfter(rig.records, plan.changes));
const findingsOf = (rig: Rig) => patchFindings(rig.patch, rig.records.universe);

const TYPES = ['spot-16', 'wash-19', 'petal-4', 'lantern', 'strip-60', 'wall'].map(typeOf);
const anyMode = fc.constantFrom(...TYPES.flatMap((type) => type.modes.map((mode) => [type, mode] as const)));

/** Rigs with lamps anywhere, colliding as they like. */
const anyRig = fc
  .array(
    fc.tuple(
      anyMode,
      fc.integer({ min: 1, max: 3 }),
      fc.integer({ min: 1, max: 512 }),
      fc.integer({ min: 1, max: 12 }),
    ),
    {
      maxLength: 10,
    },
  )
  .map((list): Rig => {
    const lamps = list.map(([[type, mode], universe, channel, number], i): Lamp => ({
      ...nightFerry().lamp[0]!,
      id: `l${i}`,
      number,
      name: `L${i}`,
      typeId: type.id,
      mode: mode.name,
      universe,
      channel,
      blocks: blocksOf(mode)
        .slice(1)
        .map(() => ({ universe: universe + 1, channel })),
      placeId: null,
    }));
    const records: ShowRecords = {
      ...emptyShow(),
      type: TYPES,
      lamp: lamps,
      universe: nightFerry().universe.slice(0, 3),
    };
    return rigOf(records);
  });

describe('placing', () => {
  test('never overlaps anything and never cuts a lamp, in whatever way it is asked for', () => {
    fc.assert(
      fc.property(
        anyRig,
        anyMode,
        fc.constantFrom('from' as const, 'gaps' as const, 'after' as const),
        fc.integer({ min: 1, max: 40 }),
        fc.integer({ min: 1, max: 512 }),
        fc.integer({ min: 0, max: 9 }),
        (rig, [type, mode], how, count, channel, gap) => {
          const plan = done(
            addLamps(
              rig,
              {
                type,
                mode,
                count,
                numberFrom: 1,
                pattern: 'New #',
                place: { how, start: { universe: 1, channel }, gap },
                placeId: null,
                groups: [],
              },
              newId,
            ),
          );
          const then = after(rig, plan);
          const fresh = then.records.lamp.filter(({ id }) => id.startsWith('new-'));
          expect(fresh).toHaveLength(count);
          for (const { id } of fresh) {
            for (const span of then.patch.lamp(id)!.spans) {
              expect(lastChannel(span)).toBeLessThanOrEqual(512);
              for (let i = 0; i < span.length; i += 1)
                expect(then.patch.at({ universe: span.universe, channel: span.channel + i })).toHaveLength(1);
            }
          }
          expect(consequences(rig, plan).brings).toEqual([]);
        },
      ),
      { numRuns: 60 },
    );
  });

  test('a lamp that a universe’s end would cut begins in the next, which is added to the show', () => {
    const spot = typeOf('spot-16');
    const plan = done(
      addLamps(
        ferry,
        {
          type: spot,
          mode: spot.modes[1]!,
          count: 2,
          numberFrom: 900,
          pattern: 'Mast',
          place: { how: 'from', start: { universe: 50, channel: 480 }, gap: 0 },
          placeId: null,
          groups: [],
        },
        newId,
      ),
    );
    expect(plan.lines).toEqual([
      { subject: 'Universe 50', before: '', after: 'added, as sACN 50' },
      { subject: 'Universe 51', before: '', after: 'added, as sACN 51' },
      { subject: '900 Mast 1', before: '', after: '50/480' },
      { subject: '901 Mast 2', before: '', after: '51/1' },
    ]);
  });

  test('a universe that a move adds speaks the protocol of the one before it and counts on from it', () => {
    const layers = rigOf({
      ...emptyShow(),
      type: [typeOf('spot-16')],
      universe: [
        { id: 'a', rev: 1, number: 3, name: '', protocol: 'sacn', wire: 3, merge: 'htp' },
        { id: 'b', rev: 1, number: 7, name: '', protocol: 'artnet', wire: 20, merge: 'ltp' },
        { id: 'c', rev: 1, number: 9, name: '', protocol: 'artnet', wire: 21, merge: 'ltp' },
      ],
    });
    const made = (universe: number) =>
      missingUniverses(layers.records, [universe], newId).changes.map(({ after: one }) => {
        const { number, protocol, wire, merge } = one as Universe;
        return [number, protocol, wire, merge];
      });
    expect(made(8)).toEqual([[8, 'artnet', 22, 'ltp']]);
    expect(made(4)).toEqual([[4, 'sacn', 4, 'htp']]);
    expect(made(1)).toEqual([[1, 'sacn', 1, 'htp']]);
    expect(made(12)).toEqual([[12, 'artnet', 24, 'ltp']]);
  });

  test('a copy and a new address keep the order of choosing', () => {
    const place = { how: 'from', start: { universe: 60, channel: 1 }, gap: 2 } as const;
    const plan = done(readdress(ferry, ['lamp-103', 'lamp-101', 'lamp-102'], place, newId));
    expect(plan.lines.slice(1).map(({ subject, after: to }) => [subject, to])).toEqual([
      ['103 Port spot 3', '60/1'],
      ['101 Port spot 1', '60/26'],
      ['102 Port spot 2', '60/51'],
    ]);
    const copies = done(
      copyLamps(ferry, ['lamp-101'], 101, { how: 'after', start: { universe: 2, channel: 1 }, gap: 0 }, newId),
    );
    expect(copies.lines[0]).toEqual({ subject: '121 Port spot 1', before: 'copy of 101', after: '2/461' });
  });
});

describe('repairs', () => {
  test('every repair that is offered mends its finding and brings no other', () => {
    let offered = 0;
    fc.assert(
      fc.property(anyRig, (rig) => {
        for (const finding of findingsOf(rig)) {
          for (const { plan } of repairsOf(rig, finding, newId)) {
            offered += 1;
            const then = findingsOf(after(rig, plan)).map(({ sentence }) => sentence);
            const before = new Set(findingsOf(rig).map(({ sentence }) => sentence));
            expect(then).not.toContain(finding.sentence);
            expect(then.filter((sentence) => !before.has(sentence))).toEqual([]);
          }
        }
      }),
      { numRuns: 40 },
    );
    expect(offered).toBeGreaterThan(50);
  });

  test('an overlap can be mended by moving either lamp, by making twins, or by another mode', () => {
    const clash = after(ferry, done(moveTo(ferry, 'lamp-102', { universe: 2, channel: 11 }, newId)));
    const [finding] = findingsOf(clash);
    expect(finding?.sentence).toBe('Lamp 101 and lamp 102 overlap from 2/11.');
    expect(repairsOf(clash, finding!, newId).map(({ label }) => label)).toEqual([
      'Move lamp 102 to the next free place',
      'Move lamp 101 to the next free place',
      'Make lamps 101 and 102 twins',
    ]);
    const twins = done(makeTwins(clash, ['lamp-101', 'lamp-102'], newId));
    const then = after(clash, twins);
    expect(findingsOf(then)).toEqual([]);
    const parted = after(then, done(partTwins(then, ['lamp-102'])));
    expect(findingsOf(parted)).toHaveLength(1);
  });
});

test('closing the gaps leaves none, moves nothing that need not move, and keeps the order', () => {
  const gappy = after(ferry, done(removeLamps(ferry, ['lamp-103', 'lamp-110'])));
  const then = after(gappy, done(closeGaps(gappy, 2, newId)));
  const spans = then.patch.universe(2);
  spans.reduce((next, { channel, length }) => {
    expect(channel).toBe(next);
    return next + length;
  }, 1);
  expect(spans.map(({ patched }) => patched.lamp.id)).toEqual(
    gappy.patch.universe(2).map(({ patched }) => patched.lamp.id),
  );
  expect(closeGaps(then, 2, newId)).toMatchObject({ ok: false, why: 'Universe 2 has no gaps between its lamps.' });
});

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
