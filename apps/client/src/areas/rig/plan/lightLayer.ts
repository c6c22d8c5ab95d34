/**
 * A picture of nothing but lights, kept as pixels: hundreds of discs a picture cost a browser without a
 * graphics processor too much, and each of them is a few rows of equal pixels.
 */
import type { Colour } from '@taxiarch/core/rig/stage';

/** Bytes of a pixel lie red, green, blue, opacity; as one number on the processors that run browsers. */
const pixel = (r: number, g: number, b: number): number => (255 << 24) | (b << 16) | (g << 8) | r;

/** Bright enough to be told from black, as the eye would see it. */
const seen = (part: number): number => Math.round(255 * Math.sqrt(part));

/** `rgb(1, 2, 3)` as parts of 0–255. */
function partsOf(css: string): Colour {
  const [r = 0, g = 0, b = 0] = (css.match(/[\d.]+/g) ?? []).map(Number);
  return [r, g, b];
}

/** The ink of a colour of the page. */
export const inkOf = (css: string): number => pixel(...partsOf(css));

export class LightLayer {
  private readonly pixels: Uint32Array;
  private readonly ground: Colour;
  /** Half widths of a disc's rows, by its radius in pixels */
  private readonly discs = new Map<number, readonly number[]>();

  /** `image` as large as the canvas, which has `ratio` pixels to one of the page; `ground` as CSS. */
  constructor(
    private readonly image: ImageData,
    private readonly ratio: number,
    ground: string,
  ) {
    this.pixels = new Uint32Array(image.data.buffer);
    this.ground = partsOf(ground);
  }

  clear(): void {
    this.pixels.fill(pixel(...this.ground));
  }

  /** The ink of a light. */
  ink([r, g, b]: Colour): number {
    return pixel(seen(r), seen(g), seen(b));
  }

  /** The ink of the faint light about a lamp: its colour over the ground, `strength` of it (0–1). */
  glow([r, g, b]: Colour, strength: number): number {
    const mixed = (part: number, i: 0 | 1 | 2) => Math.round(this.ground[i] * (1 - strength) + seen(part) * strength);
    return pixel(mixed(r, 0), mixed(g, 1), mixed(b, 2));
  }

  private row(y: number, from: number, to: number, ink: number): void {
    const { pixels } = this;
    const end = y * this.image.width + to;
    // Rows are short: a loop is quicker than a call that fills.
    for (let at = end - to + from; at < end; at += 1) pixels[at] = ink;
  }

  /** A lamp's light; x, y and radius in pixels of the page. */
  disc(x: number, y: number, radius: number, ink: number): void {
    const { width, height } = this.image;
    const reach = Math.round(radius * this.ratio);
    const [middle, line] = [Math.round(x * this.ratio), Math.round(y * this.ratio)];
    let halves = this.discs.get(reach);
    if (!halves) {
      halves = Array.from({ length: reach + 1 }, (_, i) => Math.round(Math.sqrt(reach * reach - i * i)));
      this.discs.set(reach, halves);
    }
    for (let i = -reach; i <= reach; i += 1) {
      const at = line + i;
      if (at < 0 || at >= height) continue;
      const half = halves[Math.abs(i)]!;
      this.row(at, Math.max(0, middle - half), Math.min(width, middle + half + 1), ink);
    }
  }

  /** A pixel of a run: a square of twice `half`. */
  dot(x: number, y: number, half: number, ink: number): void {
    const { width, height } = this.image;
    const from = Math.max(0, Math.round((x - half) * this.ratio));
    const to = Math.min(width, Math.round((x + half) * this.ratio));
    const last = Math.min(height, Math.round((y + half) * this.ratio));
    for (let at = Math.max(0, Math.round((y - half) * this.ratio)); at < last; at += 1) this.row(at, from, to, ink);
  }

  show(context: CanvasRenderingContext2D): void {
    context.putImageData(this.image, 0, 0);
  }
}
