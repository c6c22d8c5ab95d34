/** Nights come again by their number; what is found, mended, hinted at and named wrongly is told and marked. */
import { FAULTS, type Fault } from '../fault';
import { HARDNESS, MOST_FAULTS, areApart, badNightFaults, hardnessOf, nightOf } from './night';
import { Practice, pointsOf } from './practice';

const faultOf = (id: string): Fault => FAULTS.find((one) => one.id === id)!;
const nameOf = (id: string): string => ({ 'machine-boiler': 'Boiler node', 'machine-bridge': 'Bridge desk' })[id] ?? '';
const BEGAN = 1_000_000;
const seconds = (after: number) => BEGAN + after * 1000;
const practice = (...ids: string[]) =>
  new Practice({ number: 7, hard: 'middle', by: 'Mara', began: BEGAN }, ids.map(faultOf), nameOf);
const boiler = { kind: 'machine', id: 'machine-boiler', part: '' } as const;

test('the same number brings the same night; another brings another', () => {
  for (const hard of HARDNESS) expect(nightOf(12, 5, hard)).toEqual(nightOf(12, 5, hard));
  const nights = new Set(
    Array.from({ length: 50 }, (_, i) =>
      nightOf(i + 1, 3, 'middle')
        .map(({ id }) => id)
        .join(),
    ),
  );
  expect(nights.size).toBeGreaterThan(45);
});

test('a night has as many faults as asked, each at a box of its own, none harder than asked', () => {
  for (const hard of HARDNESS)
    for (let number = 1; number <= 60; number += 1)
      for (const count of [1, 3, MOST_FAULTS]) {
        const night = nightOf(number, count, hard);
        // Easy faults are few: they may lie at fewer boxes than are asked for.
        expect(night.length).toBeGreaterThanOrEqual(Math.min(count, 6));
        expect(night.every((one, i) => night.slice(i + 1).every((other) => areApart(one, other)))).toBe(true);
        const hardest = Math.max(...night.map((fault) => HARDNESS.indexOf(hardnessOf(fault))));
        expect(hardest).toBe(HARDNESS.indexOf(hard));
      }
});

test('the bad night that ships plants faults that lie apart', () => {
  const night = badNightFaults();
  expect(night).toHaveLength(5);
  expect(night.every((one, i) => night.slice(i + 1).every((other) => areApart(one, other)))).toBe(true);
});

test('what is named where it is, or where it is noticed, is found; all else is a wrong name', () => {
  const one = practice('boiler-unplugged', 'bridge-universe-off');
  expect(one.name(boiler, 'node-off', seconds(10))).toBe(false);
  expect(one.name({ ...boiler, id: 'machine-quay' }, 'node-unplugged', seconds(11))).toBe(false);
  expect(one.name({ ...boiler, kind: 'port', part: '2' }, 'node-unplugged', seconds(20))).toBe(true);
  expect(one.isOver).toBe(false);
  expect(one.name({ kind: 'universe', id: '2', part: '' }, 'line-off', seconds(31))).toBe(true);
  expect(one.isOver).toBe(true);
  expect(one.report(seconds(40))).toMatchObject({
    mark: { by: 'Mara', number: 7, count: 2, found: 2, seconds: 31, hints: 0, wrong: 2, points: 90 },
    faults: [
      { how: 'named', after: 20 },
      { how: 'named', after: 31 },
    ],
  });
  // Nothing is found twice.
  expect(one.name(boiler, 'node-unplugged', seconds(50))).toBe(false);
});

test('somebody whom nobody planned is named by where they are heard, or by nothing; a planned machine is not them', () => {
  for (const about of [
    { kind: 'stream', id: '127.0.0.98', part: '' },
    { kind: 'machine', id: '', part: '' },
  ] as const)
    expect(practice('third-source').name(about, 'third-source', seconds(5))).toBe(true);
  expect(practice('third-source').name(boiler, 'third-source', seconds(5))).toBe(false);
});

test('a push mends what was turned at that node, and nothing else', () => {
  const one = practice('port-off', 'bridge-universe-off');
  one.pushed('machine-bridge', seconds(5));
  one.pushed('machine-car-deck', seconds(6));
  expect(one.now().found).toEqual([]);
  one.pushed('machine-boiler', seconds(9));
  expect(one.now().found).toEqual([{ says: `${faultOf('port-off').says}.`, how: 'mended', after: 9 }]);
});

test('a hand mends what it takes back: the same box, the same thing, another way', () => {
  const unplugged = practice('boiler-unplugged');
  unplugged.handled({ id: 'quay', plugged: true }, seconds(1));
  unplugged.handled({ id: 'boiler', power: true }, seconds(2));
  unplugged.handled({ id: 'boiler', plugged: false }, seconds(3));
  expect(unplugged.isOver).toBe(false);
  unplugged.handled({ id: 'boiler', plugged: true }, seconds(4));
  expect(unplugged.isOver).toBe(true);
  const base = practice('visualiser-base');
  base.handled({ id: 'crow', faults: { early: true } }, seconds(1));
  expect(base.isOver).toBe(false);
  base.handled({ id: 'crow', faults: { base: 1 } }, seconds(2));
  expect(base.isOver).toBe(true);
});

test('hints go from where it is noticed to what it is, and are counted', () => {
  const one = practice('boiler-unplugged');
  expect([one.hint(), one.hint(), one.hint(), one.hint()]).toEqual([
    'Something is noticed at universe 6.',
    'It lies with Boiler node, and is noticed at universe 6.',
    'The Boiler node’s cable is out.',
    undefined,
  ]);
  one.end(seconds(60));
  expect(one.report(seconds(99)).mark).toMatchObject({ found: 0, seconds: 60, hints: 3, points: 0 });
  expect(pointsOf(3, 4, 1, 1)).toBe(60);
});

test('which screens were looked at before each find', () => {
  const one = practice('boiler-unplugged', 'bridge-universe-off');
  for (const [at, screen] of ['How things stand', 'Wire', 'Wire', 'Wire, Boiler node'].entries())
    one.looked(screen, seconds(at));
  one.name(boiler, 'node-unplugged', seconds(10));
  one.looked('Listen, universe 2', seconds(12));
  one.name({ kind: 'universe', id: '2', part: '' }, 'line-off', seconds(14));
  expect(one.report(seconds(20)).faults.map(({ screens }) => screens)).toEqual([
    ['How things stand', 'Wire', 'Wire, Boiler node'],
    ['Listen, universe 2'],
  ]);
});
