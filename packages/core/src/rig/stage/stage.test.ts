import fc from 'fast-check';
import { nightFerry } from '../../whole/demo';
import { rigOf } from '../patch';
import { recordsAfter } from '../../show/edit';
import { arc, grid, Light, line, putAt, setLocked, snap, spotOf } from '.';

const ferry = rigOf(nightFerry());

/** Levels by address; others are `rest`, or not heard. */
const asLevels =
  (levels: Record<string, number>, rest?: number) =>
  (universe: number, channel: number): number | undefined =>
    levels[`${universe}/${channel}`] ?? rest;

describe('arranging', () => {
  test('a grid runs row by row, a line uses both its ends, an arc keeps its radius', () => {
    expect(grid(5, 2, [1, 2], [10, 20])).toEqual([
      [10, 20],
      [11, 20],
      [10, 22],
      [11, 22],
      [10, 24],
    ]);
    expect(line(3, [0, 0], [1, 4])).toEqual([
      [0, 0],
      [0.5, 2],
      [1, 4],
    ]);
    expect(line(1, [0, 0], [2, 2])).toEqual([[1, 1]]);
    expect(arc(3, [0, 0], 2, 0, 180)).toEqual([
      [2, 0],
      [0, 2],
      [-2, 0],
    ]);
    fc.assert(
      fc.property(fc.integer({ min: 2, max: 60 }), fc.integer({ min: -360, max: 360 }), (count, to) => {
        const spots = arc(count, [5, 5], 10, 0, to === 0 ? 360 : to);
        for (const [x, y] of spots) expect(Math.hypot(x - 5, y - 5)).toBeCloseTo(10, 1);
      }),
    );
    expect(new Set(arc(8, [0, 0], 3, 0, 360).map(String)).size).toBe(8);
  });

  test('lamps snap to the step, or stand anywhere', () => {
    expect([snap(1.26, 0.5), snap(1.24, 0.5), snap(1.237, 0)]).toEqual([1.5, 1, 1.24]);
  });

  test('a view moves its own two axes; a locked lamp stays', () => {
    const plan = putAt(ferry, 'side', [['lamp-101', [30, 7]]]);
    if (!plan.ok) throw new Error(plan.why);
    const after = rigOf(recordsAfter(ferry.records, plan.value.changes)).patch.lamp('lamp-101')!.lamp;
    expect([after.x, after.y, after.z]).toEqual([ferry.patch.lamp('lamp-101')!.lamp.x, 30, 7]);
    expect(spotOf('side', after)).toEqual([30, 7]);
    const locking = setLocked(ferry, ['lamp-101'], true);
    if (!locking.ok) throw new Error(locking.why);
    const locked = rigOf(recordsAfter(ferry.records, locking.value.changes));
    expect(putAt(locked, 'top', [['lamp-101', [0, 0]]])).toMatchObject({
      ok: false,
      why: expect.stringContaining('locked') as string,
    });
  });
});

describe('light', () => {
  const lookOf = (id: string, levels: Record<string, number>) =>
    new Light(ferry.patch.lamp(id)!).whole(asLevels(levels)).map((part) => Math.round(part * 100));

  test('a dimmer glows warm, a colour lamp adds, a spot subtracts, in coarse and fine', () => {
    expect(lookOf('lamp-1', { '1/1': 255 })).toEqual([100, 86, 66]);
    expect(lookOf('lamp-1', { '1/1': 0 })).toEqual([0, 0, 0]);
    // Intensity, red, green, blue, white
    expect(lookOf('lamp-51', { '1/37': 128, '1/38': 255, '1/39': 0, '1/40': 255, '1/41': 0 })).toEqual([50, 0, 50]);
    const spot = { '2/6': 255, '2/7': 255, '2/9': 255, '2/10': 0, '2/11': 0 };
    expect(lookOf('lamp-101', spot)).toEqual([0, 86, 66]);
  });

  test('a universe that is not heard is dark; a batten is the mean of its cells', () => {
    expect(lookOf('lamp-1', {})).toEqual([0, 0, 0]);
    const batten = new Light(ferry.patch.lamp('lamp-381')!);
    expect(batten.cells).toBe(12);
    const levels = asLevels({ '9/1': 255, '9/3': 255 }, 0);
    expect(batten.cell(0, levels)).toEqual([1, 0, 0]);
    expect(batten.cell(1, levels)).toEqual([0, 0, 0]);
    expect(batten.whole(levels)[0]).toBeCloseTo(1 / 12);
    expect([...batten.universes]).toEqual([9]);
  });

  test('pixels of a run each have their colour', () => {
    const run = new Light(ferry.patch.lamp('run-802')!);
    expect(run.cells).toBe(30);
    // GRB from 13/217
    expect(run.cell(0, asLevels({ '13/217': 255 }, 0))).toEqual([0, 1, 0]);
  });
});
