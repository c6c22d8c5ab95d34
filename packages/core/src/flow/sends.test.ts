import fc from 'fast-check';
import { PLAIN_RANGE, type Source, type SourceRange, type Universe } from '../show';
import {
  addUniverse,
  isAsPlanned,
  lineDifferences,
  lineGoesTo,
  lineSays,
  priorityOf,
  sentTo,
  universesOf,
  withUniverse,
} from '.';

const line = (from: number, count: number, over: Partial<SourceRange> = {}): SourceRange => ({
  ...PLAIN_RANGE,
  from,
  count,
  ...over,
});
const sender = (...ranges: SourceRange[]): Source => ({
  id: 's',
  rev: 1,
  name: 'Desk',
  address: '',
  ranges,
  pennant: { letter: 'D', cut: 'square', fill: 'plain' },
});
const plan = (number: number, over: Partial<Universe> = {}): Universe => ({
  id: `u${number}`,
  rev: 1,
  number,
  name: '',
  protocol: 'sacn',
  wire: number,
  merge: 'htp',
  ...over,
});
const artnet = (number: number) => ({ protocol: 'artnet' as const, number });

test('universes of a sender: lines that are on, each universe once', () =>
  expect(universesOf(sender(line(3, 3), line(1, 3), line(9, 4, { on: false })))).toEqual([1, 2, 3, 4, 5]));

test('a universe sent twice has the higher of both priorities', () => {
  const both = sender(line(1, 4), line(2, 1, { to: artnet(1), priority: 120 }));
  expect([1, 2, 9].map((universe) => priorityOf(both, universe))).toEqual([100, 120, 0]);
});

test('a line with a number of its own counts on from there; one without follows the plan', () => {
  expect(sentTo(line(9, 4, { to: artnet(8) }), 11, undefined)).toEqual(artnet(10));
  expect(sentTo(line(9, 4), 11, plan(11, { protocol: 'artnet', wire: 7 }))).toEqual(artnet(7));
  expect(sentTo(line(9, 4), 11, undefined)).toBeUndefined();
  expect(isAsPlanned(line(9, 4, { to: artnet(8) }), 11, plan(11, { protocol: 'artnet', wire: 10 }))).toBe(true);
  expect(isAsPlanned(line(9, 4, { to: artnet(9) }), 11, plan(11, { protocol: 'artnet', wire: 10 }))).toBe(false);
});

test('one universe taken out of a line leaves the others where they went', () =>
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 60 }), fc.integer({ min: 1, max: 20 }), fc.nat(), (from, count, pick) => {
      const universe = from + (pick % count);
      const before = sender(line(from, count, { to: artnet(100) }));
      const after = withUniverse(before, universe, () => null);
      expect(universesOf(after)).toEqual(universesOf(before).filter((one) => one !== universe));
      for (const range of after.ranges)
        for (let i = 0; i < range.count; i += 1)
          expect(sentTo(range, range.from + i, undefined)).toEqual(
            sentTo(before.ranges[0]!, range.from + i, undefined),
          );
    }),
  ));

test('a universe added right behind a line makes it longer, else it gets a line of its own', () => {
  expect(addUniverse(sender(line(1, 11)), 12).ranges).toEqual([line(1, 12)]);
  expect(addUniverse(sender(line(1, 4, { priority: 90 })), 12).ranges[1]).toEqual(line(12, 1, { priority: 90 }));
});

test('a line says where it goes in both countings', () => {
  const planned = new Map([plan(1), plan(2), plan(3, { protocol: 'artnet', wire: 2 })].map((one) => [one.number, one]));
  expect(lineGoesTo(line(1, 3), planned)).toBe('sACN 1-2, Art-Net 2 (3 counted from 1)');
  expect(lineGoesTo(line(1, 3, { to: artnet(0) }), planned)).toBe('Art-Net 0-2 (1-3 counted from 1)');
  expect(lineGoesTo(line(7, 1), planned)).toBe('nowhere');
  expect(lineSays(line(1, 1, { delivery: 'unicast', addresses: ['10.0.0.4'], on: false, slotPriority: true }))).toBe(
    '44 Hz, priority 100 and for each slot, unicast to 10.0.0.4, off',
  );
});

test('what differs between two tables is told by line', () => {
  const before = [line(1, 8), line(20, 1)];
  expect(lineDifferences('Desk', before, before)).toEqual([]);
  expect(lineDifferences('Desk', before, [line(1, 8, { rate: 30 }), line(30, 2)])).toEqual([
    {
      subject: 'Desk, universes from 1',
      before: '1-8 as planned, 44 Hz, priority 100',
      after: '1-8 as planned, 30 Hz, priority 100',
    },
    { subject: 'Desk, universes from 30', before: '', after: '30-31 as planned, 44 Hz, priority 100' },
    { subject: 'Desk, universes from 20', before: '20 as planned, 44 Hz, priority 100', after: '' },
  ]);
});
