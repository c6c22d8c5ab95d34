/** Draws the plan in two layers: below, the light that lamps and pixels receive; above it, all that stands still. */
import type { FixtureKind } from '@taxiarch/core/show/records';
import type { LevelAt, Light, Spot } from '@taxiarch/core/rig/stage';
import { toScreen, type Camera, type Size } from './camera';
import type { LightLayer } from './lightLayer';
import { symbolOf } from './symbols';

export interface Mark {
  readonly id: string;
  readonly number: number;
  readonly kind: FixtureKind;
  readonly spot: Spot;
  /** The other end, for runs of pixels */
  readonly end: Spot | undefined;
  readonly locked: boolean;
  readonly light: Light;
  /** Of the universes on the wire that it listens to */
  readonly keys: readonly number[];
  /** What it shows: for a run the ink of each pixel, for a lamp its own and that of its glow, 0 when it is out */
  readonly inks: Uint32Array;
}

export interface Region {
  readonly name: string;
  readonly from: Spot;
  readonly to: Spot;
}

export interface Scene {
  readonly marks: readonly Mark[];
  readonly regions: readonly Region[];
  readonly chosen: ReadonlySet<string>;
  /** Metres by which the chosen are being dragged */
  readonly drag: Spot;
  readonly box: readonly [Spot, Spot] | undefined;
}

export interface Inks {
  readonly ground: string;
  readonly line: string;
  readonly soft: string;
  readonly text: string;
  readonly press: string;
}

export const MARK_RADIUS = 7;
const NUMBERS_FROM = 16;
/** Height of a place's name, pixels */
const LABEL = 18;

/** Names of places, each moved down until it covers no other. */
function nameRegions(
  context: CanvasRenderingContext2D,
  size: Size,
  camera: Camera,
  regions: readonly Region[],
  inks: Inks,
): void {
  const taken: (readonly [x: number, y: number, width: number])[] = [];
  context.textAlign = 'left';
  for (const { name, from, to } of regions) {
    const [x1, y1] = toScreen(camera, size, from);
    const [x2, y2] = toScreen(camera, size, to);
    const width = context.measureText(name).width + 8;
    const x = Math.min(x1, x2) - 12;
    let y = Math.min(y1, y2) - 16;
    const covers = ([ox, oy, other]: (typeof taken)[number]) =>
      x < ox + other && ox < x + width && Math.abs(y - oy) < LABEL;
    while (taken.some(covers)) y += LABEL;
    taken.push([x, y, width]);
    context.globalAlpha = 0.75;
    context.fillStyle = inks.ground;
    context.fillRect(x, y - LABEL + 4, width, LABEL);
    context.globalAlpha = 1;
    context.fillStyle = inks.text;
    context.fillText(name, x + 4, y);
  }
}

const radiusAt = (camera: Camera): number => Math.min(14, Math.max(4, (camera.scale * MARK_RADIUS) / 20));

const placeOf = (mark: Mark, { chosen, drag }: Scene): Spot =>
  chosen.has(mark.id) ? [mark.spot[0] + drag[0], mark.spot[1] + drag[1]] : mark.spot;

const inSight = ([x, y]: Spot, { width, height }: Size): boolean =>
  x > -20 && y > -20 && x < width + 20 && y < height + 20;

const OUT = 0.01;
const colour: [number, number, number] = [0, 0, 0];

/** Takes in what a mark receives; its inks stay until one of its universes changes. `dark`: of pixels that are out. */
export function receive({ light, end, inks }: Mark, layer: LightLayer, levelAt: LevelAt, dark: number): void {
  if (end) {
    for (let i = 0; i < light.cells; i += 1) {
      light.cell(i, levelAt, colour);
      inks[i] = colour[0] + colour[1] + colour[2] > OUT ? layer.ink(colour) : dark;
    }
    return;
  }
  light.whole(levelAt, colour);
  const intensity = Math.max(colour[0], colour[1], colour[2]);
  inks[0] = intensity < OUT ? 0 : layer.ink(colour);
  inks[1] = intensity < OUT ? 0 : layer.glow(colour, 0.2 * intensity);
}

function drawRun({ light, inks }: Mark, layer: LightLayer, [x, y]: Spot, [ex, ey]: Spot, half: number): void {
  const gaps = Math.max(1, light.cells - 1);
  const [dx, dy] = [(ex - x) / gaps, (ey - y) / gaps];
  for (let i = 0; i < light.cells; i += 1) layer.dot(x + dx * i, y + dy * i, half, inks[i]!);
}

/** What changes with every packet: the lights as they were last received. */
export function drawLights(layer: LightLayer, size: Size, camera: Camera, scene: Scene): void {
  layer.clear();
  const radius = radiusAt(camera);
  const { marks } = scene;
  const lit = marks
    .filter(({ end, inks }) => !end && inks[0] !== 0)
    .map((mark) => ({ inks: mark.inks, at: toScreen(camera, size, placeOf(mark, scene)) }))
    .filter(({ at }) => inSight(at, size));
  // From afar glows would only run together; near, none of them may cover the next lamp or pixel.
  if (camera.scale >= NUMBERS_FROM) for (const { at, inks } of lit) layer.disc(...at, radius * 2, inks[1]!);
  for (const mark of marks)
    if (mark.end) {
      const from = toScreen(camera, size, placeOf(mark, scene));
      drawRun(mark, layer, from, toScreen(camera, size, mark.end), Math.max(1.5, radius / 4));
    }
  for (const { at, inks } of lit) layer.disc(...at, radius * 0.9, inks[0]!);
}

/** What changes only when a person does something: outlines, numbers, names, what is chosen. Lies over the lights. */
export function drawOutlines(
  context: CanvasRenderingContext2D,
  size: Size,
  camera: Camera,
  scene: Scene,
  inks: Inks,
): void {
  const { marks, regions, chosen, box } = scene;
  context.clearRect(0, 0, size.width, size.height);
  context.font = '13px "Fira Sans", sans-serif';
  context.strokeStyle = inks.line;
  context.lineWidth = 1;
  for (const { from, to } of regions) {
    const [x1, y1] = toScreen(camera, size, from);
    const [x2, y2] = toScreen(camera, size, to);
    context.strokeRect(Math.min(x1, x2) - 12, Math.min(y1, y2) - 12, Math.abs(x2 - x1) + 24, Math.abs(y2 - y1) + 24);
  }
  const radius = radiusAt(camera);
  context.textAlign = 'center';
  for (const mark of marks) {
    const [x, y] = toScreen(camera, size, placeOf(mark, scene));
    if (mark.end || !inSight([x, y], size)) continue;
    const on = chosen.has(mark.id);
    context.save();
    context.translate(x, y);
    context.scale(radius, radius);
    context.lineWidth = (on ? 2.5 : 1) / radius;
    context.strokeStyle = on ? inks.press : mark.locked ? inks.soft : inks.text;
    context.stroke(symbolOf(mark.kind));
    context.restore();
    if (camera.scale >= NUMBERS_FROM) {
      context.fillStyle = on ? inks.press : inks.soft;
      context.fillText(String(mark.number), x, y + radius + 14);
    }
  }
  nameRegions(context, size, camera, regions, inks);
  if (box) {
    const [[x1, y1], [x2, y2]] = box;
    context.strokeStyle = inks.press;
    context.setLineDash([6, 4]);
    context.strokeRect(Math.min(x1, x2), Math.min(y1, y2), Math.abs(x2 - x1), Math.abs(y2 - y1));
    context.setLineDash([]);
  }
  drawScale(context, size, camera, inks);
}

/** How long some metres are. */
function drawScale(context: CanvasRenderingContext2D, { height }: Size, { scale }: Camera, inks: Inks): void {
  const metres = scale > 40 ? 1 : scale > 8 ? 5 : 20;
  context.strokeStyle = inks.soft;
  context.lineWidth = 2;
  context.beginPath();
  context.moveTo(16, height - 14);
  context.lineTo(16 + metres * scale, height - 14);
  context.stroke();
  context.fillStyle = inks.soft;
  context.textAlign = 'left';
  context.fillText(`${metres} m`, 16, height - 20);
}
