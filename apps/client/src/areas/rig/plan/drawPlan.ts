/** Draws the plan: places, lamps with the light that they receive, runs of pixels, and what is chosen. */
import type { FixtureKind } from '@taxiarch/core/fixture';
import type { Colour, Light, LevelAt, Spot } from '@taxiarch/core/stage';
import { toScreen, type Camera, type Size } from './camera';
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
  readonly surface: string;
}

export const MARK_RADIUS = 7;
const NUMBERS_FROM = 16;
/** Height of a place's name, pixels */
const LABEL = 18;

/** Bright enough to be told from black, as the eye would see it. */
const css = ([r, g, b]: Colour): string => {
  const part = (value: number) => Math.round(255 * Math.sqrt(value));
  return `rgb(${part(r)},${part(g)},${part(b)})`;
};

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

export function drawPlan(
  context: CanvasRenderingContext2D,
  size: Size,
  camera: Camera,
  { marks, regions, chosen, drag, box }: Scene,
  levelAt: LevelAt,
  inks: Inks,
): void {
  context.fillStyle = inks.ground;
  context.fillRect(0, 0, size.width, size.height);
  context.font = '13px "Fira Sans", sans-serif';
  context.textAlign = 'left';
  context.strokeStyle = inks.line;
  context.lineWidth = 1;
  for (const { from, to } of regions) {
    const [x1, y1] = toScreen(camera, size, from);
    const [x2, y2] = toScreen(camera, size, to);
    const [left, top] = [Math.min(x1, x2) - 12, Math.min(y1, y2) - 12];
    context.strokeRect(left, top, Math.abs(x2 - x1) + 24, Math.abs(y2 - y1) + 24);
  }
  const radius = Math.min(14, Math.max(4, (camera.scale * MARK_RADIUS) / 20));
  const [dx, dy] = drag;
  for (const { id, number, kind, spot, end, light, locked } of marks) {
    const on = chosen.has(id);
    const [x, y] = toScreen(camera, size, on ? [spot[0] + dx, spot[1] + dy] : spot);
    if (end) {
      const [ex, ey] = toScreen(camera, size, end);
      const cells = light.cells;
      const dot = Math.max(1.5, radius / 4);
      for (let i = 0; i < cells; i += 1) {
        const share = cells === 1 ? 0 : i / (cells - 1);
        const colour = light.cell(i, levelAt);
        context.fillStyle = colour[0] + colour[1] + colour[2] > 0.01 ? css(colour) : inks.line;
        context.fillRect(x + (ex - x) * share - dot, y + (ey - y) * share - dot, 2 * dot, 2 * dot);
      }
      continue;
    }
    if (x < -20 || y < -20 || x > size.width + 20 || y > size.height + 20) continue;
    const colour = light.whole(levelAt);
    const lit = Math.max(colour[0], colour[1], colour[2]);
    const path = symbolOf(kind);
    context.save();
    context.translate(x, y);
    if (lit > 0.02) {
      context.globalAlpha = 0.25 * lit;
      context.fillStyle = css(colour);
      context.beginPath();
      context.arc(0, 0, radius * 2.1, 0, 2 * Math.PI);
      context.fill();
      context.globalAlpha = 1;
    }
    context.scale(radius, radius);
    context.fillStyle = lit > 0.01 ? css(colour) : inks.surface;
    context.fill(path);
    context.lineWidth = (on ? 2.5 : 1) / radius;
    context.strokeStyle = on ? inks.press : locked ? inks.soft : inks.text;
    context.stroke(path);
    context.restore();
    if (camera.scale >= NUMBERS_FROM) {
      context.fillStyle = on ? inks.press : inks.soft;
      context.textAlign = 'center';
      context.fillText(String(number), x, y + radius + 14);
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
  // How long a metre is
  const metres = camera.scale > 40 ? 1 : camera.scale > 8 ? 5 : 20;
  context.strokeStyle = inks.soft;
  context.lineWidth = 2;
  context.beginPath();
  context.moveTo(16, size.height - 14);
  context.lineTo(16 + metres * camera.scale, size.height - 14);
  context.stroke();
  context.fillStyle = inks.soft;
  context.textAlign = 'left';
  context.fillText(`${metres} m`, 16, size.height - 20);
}
