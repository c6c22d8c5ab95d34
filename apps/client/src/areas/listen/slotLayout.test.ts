import { nightFerry } from '@taxiarch/core/whole/demo';
import { Patch } from '@taxiarch/core/rig/patch';
import { CELL, layoutBands, layoutPlain, type FieldLayout } from './slotLayout';

const { lamp, type } = nightFerry();
const patch = new Patch(lamp, type);

/** Pairs of cells that cover each other. */
function clashes({ cells, cellHeight }: FieldLayout): number {
  let found = 0;
  cells.forEach((one, i) =>
    cells.slice(i + 1).forEach((other) => {
      if (Math.abs(one.x - other.x) < Math.min(one.width, other.width) && Math.abs(one.y - other.y) < cellHeight)
        found += 1;
    }),
  );
  return found;
}

describe.each([340, 358, 700])('at %d wide', (width) => {
  test.each([1, 2, 6, 9, 11])(
    'universe %d: every slot stands once, in its band or in a fold, and none on another',
    (universe) => {
      const layout = layoutBands(patch.universe(universe), width, new Set());
      const shown = layout.cells.map(({ slot }) => slot);
      const folded = layout.gaps.flatMap(({ from, to }) => Array.from({ length: to - from + 1 }, (_, i) => from + i));
      expect([...shown, ...folded].sort((a, b) => a - b)).toEqual(Array.from({ length: 512 }, (_, i) => i));
      expect(clashes(layout)).toBe(0);
      expect(Math.max(...layout.cells.map(({ x }) => x + CELL))).toBeLessThanOrEqual(width);
      expect(Math.max(...layout.cells.map(({ y }) => y + layout.cellHeight))).toBeLessThanOrEqual(layout.height);
    },
  );

  test('all 512 in 32 columns', () => {
    const { cells } = layoutPlain(width);
    expect(cells).toHaveLength(512);
    expect(new Set(cells.map(({ x }) => x)).size).toBe(32);
  });
});

test('an opened fold shows its slots', () => {
  const closed = layoutBands(patch.universe(2), 358, new Set());
  const opened = layoutBands(patch.universe(2), 358, new Set([closed.gaps[0]!.from]));
  expect(closed.cells).toHaveLength(460);
  expect(opened.cells).toHaveLength(512);
  expect(opened.labels.at(-1)?.text).toBe('unpatched');
  // Each says which channel it is.
  expect(opened.cells.slice(-3).map(({ short }) => short)).toEqual(['510', '511', '512']);
});

test('attributes are spelt short, fine bytes are said, cells are numbered', () => {
  const spots = layoutBands(patch.universe(2), 358, new Set()).cells;
  expect(spots.slice(0, 6).map(({ short }) => short)).toEqual(['Pan', 'fine', 'Tilt', 'fine', 'Spd', 'Int']);
  const battens = layoutBands(patch.universe(9), 358, new Set()).cells;
  expect(battens.slice(2, 6).map(({ short }) => short)).toEqual(['R1', 'G1', 'B1', 'R2']);
});

test('where lamps overlap each slot still stands once', () => {
  const two = lamp.filter(({ universe }) => universe === 2).slice(0, 2);
  const layout = layoutBands(new Patch([two[0]!, { ...two[1]!, channel: 10 }], type).universe(2), 358, new Set());
  expect(new Set(layout.cells.map(({ slot }) => slot)).size).toBe(layout.cells.length);
});
