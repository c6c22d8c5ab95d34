import fc from 'fast-check';
import { fit, panBy, toPlan, toScreen, zoomAt, type Camera } from './camera';

const size = { width: 390, height: 600 };
const number = fc.double({ min: -200, max: 200, noNaN: true });
const camera = fc.record({
  middle: fc.tuple(number, number),
  scale: fc.double({ min: 1, max: 100, noNaN: true }),
  turned: fc.boolean(),
}) as fc.Arbitrary<Camera>;

test('metres go to the screen and back', () => {
  fc.assert(
    fc.property(camera, number, number, (view, a, b) => {
      const [x, y] = toPlan(view, size, toScreen(view, size, [a, b]));
      expect(x).toBeCloseTo(a, 6);
      expect(y).toBeCloseTo(b, 6);
    }),
  );
});

test('what is under the finger stays there while zooming, and moves along while panning', () => {
  fc.assert(
    fc.property(camera, fc.double({ min: 0.5, max: 2, noNaN: true }), (view, factor) => {
      const before = toPlan(view, size, [100, 200]);
      const after = toPlan(zoomAt(view, size, [100, 200], factor), size, [100, 200]);
      expect(after[0]).toBeCloseTo(before[0], 6);
      const [x, y] = toScreen(panBy(view, [30, -20]), size, before);
      expect([x, y].map(Math.round)).toEqual([130, 180]);
    }),
  );
});

test.each([false, true])('everything fits into sight, turned: %s', (turned) => {
  const spots = [
    [-9, 2],
    [18, 80],
  ] as const;
  const view = fit(spots, size, turned);
  for (const spot of spots) {
    const [x, y] = toScreen(view, size, spot);
    expect(x).toBeGreaterThanOrEqual(0);
    expect(x).toBeLessThanOrEqual(size.width);
    expect(y).toBeGreaterThanOrEqual(0);
    expect(y).toBeLessThanOrEqual(size.height);
  }
});

test('turned, what lies ahead is to the right and what lies to starboard below, as it is seen from above', () => {
  const view: Camera = { middle: [0, 0], scale: 10, turned: true };
  const [middle, ahead, starboard] = (
    [
      [0, 0],
      [0, 1],
      [1, 0],
    ] as const
  ).map((spot) => toScreen(view, size, spot));
  expect(ahead).toEqual([middle![0] + 10, middle![1]]);
  expect(starboard).toEqual([middle![0], middle![1] + 10]);
});
