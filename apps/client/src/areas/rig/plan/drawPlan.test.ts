import { nightFerry } from '@taxiarch/core/whole/demo';
import { rigOf } from '@taxiarch/core/rig/patch';
import { Light, type Spot } from '@taxiarch/core/rig/stage';
import { drawLights, receive, type Mark, type Scene } from './drawPlan';
import { LightLayer, inkOf } from './lightLayer';

const SIZE = { width: 60, height: 40 };
const DARK = inkOf('rgb(40 40 40)');
const GROUND = [0, 0, 0, 255];
const { patch } = rigOf(nightFerry());

/** A lamp or run of the demo show, as it would stand at some metres. */
function markOf(id: string, spot: Spot, end?: Spot): Mark {
  const patched = patch.lamp(id)!;
  const light = new Light(patched);
  return {
    id,
    number: patched.lamp.number,
    kind: patched.type.kind,
    spot,
    end,
    locked: false,
    light,
    keys: [],
    inks: new Uint32Array(Math.max(2, light.cells)),
  };
}

const dimmer = patch.all().find(({ type, run }) => type.kind === 'dimmer' && !run)!.lamp;
const run = patch.all().find((one) => one.run)!;

function drawn(marks: readonly Mark[], level: number | undefined, scale = 10, over: Partial<Scene> = {}) {
  const data = new Uint8ClampedArray(SIZE.width * SIZE.height * 4);
  const layer = new LightLayer({ ...SIZE, data } as ImageData, 1, 'rgb(0, 0, 0)');
  for (const mark of marks) receive(mark, layer, () => level, DARK);
  const scene: Scene = { marks, regions: [], chosen: new Set(), drag: [0, 0], box: undefined, ...over };
  drawLights(layer, SIZE, { middle: [0, 0], scale, turned: false }, scene);
  return (x: number, y: number) => [...data.subarray((y * SIZE.width + x) * 4, (y * SIZE.width + x) * 4 + 4)];
}

test('a lamp shines where it stands, as it receives; one that is out or not heard leaves no trace', () => {
  const full = drawn([markOf(dimmer.id, [1, 0])], 255)(40, 20);
  expect(full[0]).toBe(255);
  expect(full[0]).toBeGreaterThan(full[2]!);
  const half = drawn([markOf(dimmer.id, [1, 0])], 128)(40, 20);
  expect(half[0]).toBeLessThan(255);
  expect(half[0]).toBeGreaterThan(128);
  expect(drawn([markOf(dimmer.id, [1, 0])], 0)(40, 20)).toEqual(GROUND);
  expect(drawn([markOf(dimmer.id, [1, 0])], undefined)(40, 20)).toEqual(GROUND);
});

test('the second axis runs up the screen', () => {
  const at = drawn([markOf(dimmer.id, [0, 1])], 255);
  expect([at(30, 10)[0], at(30, 30)[0]]).toEqual([255, 0]);
});

test('what is chosen is drawn where it is being dragged to', () => {
  const at = drawn([markOf(dimmer.id, [0, 0])], 255, 10, { chosen: new Set([dimmer.id]), drag: [2, 0] });
  expect([at(30, 20)[0], at(50, 20)[0]]).toEqual([0, 255]);
});

test('a glow is seen from near only, and never covers the next lamp', () => {
  const lamps = [markOf(dimmer.id, [0, 0]), markOf(dimmer.id, [0.55, 0])];
  const near = drawn(lamps, 255, 20);
  // The radius of a lamp is 7 here, that of its glow 14: the second stands in the glow of the first.
  expect(near(41, 20)[0]).toBe(255);
  expect(near(30, 20)[0]).toBe(255);
  const glow = near(30, 9)[0]!;
  expect(glow).toBeGreaterThan(0);
  expect(glow).toBeLessThan(128);
  expect(drawn(lamps, 255, 10)(30, 9)).toEqual(GROUND);
});

test('pixels of a run stand in a row from one end to the other; those that are out, in the colour of lines', () => {
  const mark = () => markOf(run.lamp.id, [-2, 0], [2, 0]);
  const lit = drawn([mark()], 255);
  const out = drawn([mark()], 0);
  for (const x of [10, 30, 50]) {
    expect(lit(x, 20).slice(0, 3)).toEqual([255, 255, 255]);
    expect(out(x, 20)).toEqual([40, 40, 40, 255]);
  }
  expect(lit(4, 20)).toEqual(GROUND);
});
