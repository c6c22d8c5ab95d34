import fc from 'fast-check';
import { nightFerry } from '../../whole/demo';
import { PLAIN_LINE, type SendLine, type Universe } from '../../show/records';
import {
  addUniverse,
  isAsPlanned,
  lineDifferences,
  lineGoesTo,
  lineSays,
  priorityOf,
  sendersOf,
  sentTo,
  universesOf,
  withUniverse,
} from '.';

const line = (from: number, count: number, over: Partial<SendLine> = {}): SendLine => ({
  ...PLAIN_LINE,
  from,
  count,
  ...over,
});
const sender = (...lines: SendLine[]) => ({ lines });
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
      const after = withUniverse(before.lines, universe, () => null);
      expect(universesOf({ lines: after })).toEqual(universesOf(before).filter((one) => one !== universe));
      for (const line of after)
        for (let i = 0; i < line.count; i += 1)
          expect(sentTo(line, line.from + i, undefined)).toEqual(sentTo(before.lines[0]!, line.from + i, undefined));
    }),
  ));

test('a universe added right behind a line makes it longer, else it gets a line of its own', () => {
  expect(addUniverse([line(1, 11)], 12)).toEqual([line(1, 12)]);
  expect(addUniverse([line(1, 4, { priority: 90 })], 12)[1]).toEqual(line(12, 1, { priority: 90 }));
});

test('a line says where it goes in both countings', () => {
  const planned = new Map([plan(1), plan(2), plan(3, { protocol: 'artnet', wire: 2 })].map((one) => [one.number, one]));
  expect(lineGoesTo(line(1, 3), planned)).toBe('sACN 1-2, Art-Net 2 (3 counted from 1)');
  expect(lineGoesTo(line(1, 3, { to: artnet(0) }), planned)).toBe('Art-Net 0-2 (1-3 counted from 1)');
  expect(lineGoesTo(line(7, 1), planned)).toBe('nowhere');
  expect(
    lineSays(line(1, 1, { delivery: 'unicast', addresses: ['10.0.0.4'], on: false, slotPriority: true }), true),
  ).toBe('40 Hz, priority 100 and for each slot, unicast to 10.0.0.4, off');
});

test('what differs between two tables is told by line', () => {
  const before = [line(1, 8), line(20, 1)];
  expect(lineDifferences('Desk', before, before)).toEqual([]);
  expect(lineDifferences('Desk', before, [line(1, 8, { rate: 30 }), line(30, 2)])).toEqual([
    {
      subject: 'Desk, universes from 1',
      before: '1-8 as planned, 40 Hz, priority 100',
      after: '1-8 as planned, 30 Hz, priority 100',
    },
    { subject: 'Desk, universes from 30', before: '', after: '30-31 as planned, 40 Hz, priority 100' },
    { subject: 'Desk, universes from 20', before: '20 as planned, 40 Hz, priority 100', after: '' },
  ]);
});

test('a machine that sends is heard from its own addresses; a desk on a cable from the machine that takes it in', () => {
  const { machine } = nightFerry();
  const addresses = Object.fromEntries(sendersOf(machine).map(({ name, addresses: its }) => [name, its]));
  expect(addresses).toMatchObject({ 'Bridge desk': ['127.0.0.21'], 'Purser’s desk': ['127.0.0.34'] });
  const unplugged = machine.map((one) => ({
    ...one,
    ports: one.ports.map((port) => ({ ...port, use: 'out' as const })),
  }));
  expect(sendersOf(unplugged).find(({ name }) => name === 'Purser’s desk')!.addresses).toEqual([]);
  expect(sendersOf(machine)).toBe(sendersOf(machine));
});
