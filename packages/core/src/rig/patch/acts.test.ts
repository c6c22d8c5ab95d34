import fc from 'fast-check';
import { nightFerry } from '../../whole/demo';
import { blocksOf } from '../fixture';
import { emptyShow, type Lamp, type ShowRecords, type Universe } from '../../show/records';
import {
  addLamps,
  closeGaps,
  consequences,
  copyLamps,
  lastChannel,
  makeTwins,
  missingUniverses,
  moveTo,
  partTwins,
  readdress,
  removeLamps,
  repairsOf,
  type Rig,
  rigOf,
} from '.';
import { newId, typeOf, ferry, done, after, findingsOf } from './testing/rigs';

const DEMO = nightFerry();
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
      ...DEMO.lamp[0]!,
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
      universe: DEMO.universe.slice(0, 3),
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
