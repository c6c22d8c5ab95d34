/** Draws the plan in two layers: below, the light that lamps and pixels receive; above it, all that stands still. */
import type { FixtureKind } from '@taxiarch/core/fixture';
import type { Colour, Light, LevelAt, Spot } from '@taxiarch/core/stage';
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

/** What changes with every packet: the light of each lamp and pixel. `dark` is the colour of pixels that are out. */
export function drawLights(
  layer: LightLayer,
  size: Size,
  camera: Camera,
  scene: Scene,
  levelAt: LevelAt,
  dark: Colour,
): void {
  layer.clear();
  const radius = radiusAt(camera);
  const dot = Math.max(1.5, radius / 4);
  // From afar the glow would only run together.
  const glows = camera.scale >= NUMBERS_FROM;
  const colour: [number, number, number] = [0, 0, 0];
  const lit: (() => void)[] = [];
  for (const mark of scene.marks) {
    const [x, y] = toScreen(camera, size, placeOf(mark, scene));
    const { light, end } = mark;
    if (end) {
      const [ex, ey] = toScreen(camera, size, end);
      const gaps = Math.max(1, light.cells - 1);
      for (let i = 0; i < light.cells; i += 1) {
        light.cell(i, levelAt, colour);
        const out = colour[0] + colour[1] + colour[2] <= 0.01;
        layer.dot(x + ((ex - x) * i) / gaps, y + ((ey - y) * i) / gaps, dot, out ? undefined : colour, dark);
      }
      continue;
    }
    if (!inSight([x, y], size)) continue;
    light.whole(levelAt, colour);
    const intensity = Math.max(colour[0], colour[1], colour[2]);
    if (intensity < 0.01) continue;
    if (!glows) layer.spot(x, y, radius * 0.9, colour);
    else {
      // The glow of one lamp must not cover another: all glows first.
      layer.glow(x, y, radius * 2, colour, 0.2 * intensity);
      const [r, g, b] = colour;
      lit.push(() => layer.spot(x, y, radius * 0.9, [r, g, b]));
    }
  }
  for (const draw of lit) draw();
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
