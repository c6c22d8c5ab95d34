import fc from 'fast-check';
import { LightLayer, inkOf } from './lightLayer';

const GROUND = 'rgb(10, 20, 30)';

function layerOf(width: number, height: number, ratio = 1) {
  const data = new Uint8ClampedArray(width * height * 4);
  const layer = new LightLayer({ width, height, data } as ImageData, ratio, GROUND);
  layer.clear();
  const at = (x: number, y: number) => [...data.subarray((y * width + x) * 4, (y * width + x) * 4 + 4)];
  return { layer, at, data };
}

const GROUND_PIXEL = [10, 20, 30, 255];

test('a disc is round, in its colour, and leaves the ground around it', () => {
  const { layer, at } = layerOf(21, 21);
  layer.disc(10, 10, 5, layer.ink([1, 0, 0.25]));
  expect([at(10, 10), at(5, 10), at(10, 15)]).toEqual(Array(3).fill([255, 0, 128, 255]));
  expect([at(4, 10), at(5, 5), at(15, 15), at(0, 0)]).toEqual(Array(4).fill(GROUND_PIXEL));
});

test('a glow is its colour thinned over the ground', () => {
  const { layer, at } = layerOf(9, 9);
  layer.disc(4, 4, 2, layer.glow([1, 1, 1], 0.2));
  expect(at(4, 4)).toEqual([59, 67, 75, 255]);
});

test('a pixel of a run is a square, on a fine screen of as many more pixels', () => {
  const { layer, at } = layerOf(9, 9, 2);
  layer.dot(2, 2, 1, inkOf('rgb(1 2 3)'));
  expect([at(2, 2), at(5, 5), at(6, 6)]).toEqual([[1, 2, 3, 255], [1, 2, 3, 255], GROUND_PIXEL]);
});

test('what lies across the edge is cut there; nothing outside is touched, and all stays opaque', () => {
  const spot = fc.tuple(fc.double({ min: -40, max: 60, noNaN: true }), fc.double({ min: -40, max: 60, noNaN: true }));
  fc.assert(
    fc.property(spot, fc.double({ min: 0.1, max: 30, noNaN: true }), ([x, y], radius) => {
      const { layer, at, data } = layerOf(16, 12);
      layer.disc(x, y, radius, inkOf('rgb(255 255 255)'));
      layer.dot(y, x, radius, inkOf('rgb(0 255 0)'));
      expect(data.every((part, i) => i % 4 !== 3 || part === 255)).toBe(true);
      const { layer: other, at: there } = layerOf(64, 64);
      other.disc(x + 24, y + 24, radius, inkOf('rgb(255 255 255)'));
      other.dot(y + 24, x + 24, radius, inkOf('rgb(0 255 0)'));
      if (Math.abs(x) + radius < 20 && Math.abs(y) + radius < 20) expect(at(0, 0)).toEqual(there(24, 24));
    }),
  );
});
