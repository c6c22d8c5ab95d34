/** Draws the visible part of a slot field on a canvas. */
import { NOBODY } from '@taxiarch/core/signal/merge';
import type { Pennant } from '@taxiarch/core/show/records';
import { PENNANT_INK, isOwnPennant, pennantShape } from '@/ui/pennant';
import type { Tone } from '@/ui/theme';
import { GAP_WIDTH, type Cell, type FieldLayout } from './slotLayout';
import { WRITTEN, type Unit } from './units';

export interface FieldPicture {
  readonly layout: FieldLayout;
  readonly values: Uint8Array;
  readonly owners: Uint8Array;
  readonly pennants: ReadonlyMap<number, Pennant>;
  readonly unit: Unit;
  /** Slots that drive something by the input map, from 0 */
  readonly inUse: ReadonlySet<number>;
  /** Slot chosen, from 0 */
  readonly chosen: number | undefined;
  readonly colour: (tone: Tone) => string;
}

const FLAG_HEIGHT = 16;
const FLAG_WIDTH = 24;
const TEXT_LINE = 15;
const SANS = '13px "Fira Sans"';
const SANS_STRONG = '600 13px "Fira Sans"';
const MONO = '13px "Fira Mono"';

const flags = new Map<string, HTMLCanvasElement>();

/** A pennant drawn once, at the screen's own resolution. */
function flagImage(pennant: Pennant, ratio: number): HTMLCanvasElement {
  const name = `${pennant.letter} ${pennant.cut} ${pennant.fill} ${ratio}`;
  let image = flags.get(name);
  if (image) return image;
  image = document.createElement('canvas');
  image.width = FLAG_WIDTH * ratio;
  image.height = FLAG_HEIGHT * ratio;
  const ctx = image.getContext('2d')!;
  ctx.scale(ratio, ratio);
  const { outline, hatching, tint } = pennantShape(pennant);
  ctx.fillStyle = tint;
  ctx.fill(new Path2D(outline));
  ctx.fillStyle = PENNANT_INK;
  if (hatching) ctx.fill(new Path2D(hatching));
  ctx.font = SANS_STRONG;
  ctx.textAlign = 'center';
  ctx.fillText(pennant.letter, 7, 12.5);
  flags.set(name, image);
  return image;
}

export function drawSlots(
  ctx: CanvasRenderingContext2D,
  picture: FieldPicture,
  top: number,
  width: number,
  height: number,
  ratio: number,
): void {
  const { layout, colour } = picture;
  ctx.setTransform(ratio, 0, 0, ratio, 0, 0);
  ctx.clearRect(0, 0, width, height);
  ctx.translate(0, -top);
  const visible = (y: number, tall: number) => y + tall >= top && y <= top + height;

  ctx.textBaseline = 'alphabetic';
  ctx.textAlign = 'left';
  ctx.font = SANS;
  ctx.fillStyle = colour('text');
  for (const { text, x, y, width: room } of layout.labels) if (visible(y, 20)) fillFitted(ctx, text, x, y + 14, room);

  for (const gap of layout.gaps) {
    if (!visible(gap.y, layout.cellHeight)) continue;
    ctx.fillStyle = colour('line');
    for (let dot = 0; dot < 5; dot += 1) ctx.fillRect(gap.x + GAP_WIDTH / 2 - 1.5, gap.y + 14 + dot * 11, 3, 5);
  }

  for (const cell of layout.cells) if (visible(cell.y, layout.cellHeight)) drawCell(ctx, picture, cell, ratio);
}

function fillFitted(ctx: CanvasRenderingContext2D, text: string, x: number, y: number, room: number): void {
  let fitted = text;
  while (fitted.length > 1 && ctx.measureText(fitted).width > room) fitted = fitted.slice(0, -1);
  ctx.fillText(fitted, x, y);
}

function drawCell(ctx: CanvasRenderingContext2D, picture: FieldPicture, cell: Cell, ratio: number): void {
  const { layout, values, owners, pennants, unit, chosen, colour } = picture;
  const value = values[cell.slot]!;
  const owner = owners[cell.slot]!;
  const pennant = owner === NOBODY ? undefined : pennants.get(owner);
  const { x, y } = cell;
  const width = cell.width - 2;
  const named = layout.labels.length > 0;
  const strip = named ? FLAG_HEIGHT + 2 : 5;
  const foot = layout.numbers ? TEXT_LINE * (named ? 2 : 1) : 0;
  const barTop = y + strip;
  const bar = layout.cellHeight - strip - foot - 2;

  if (pennant && named) ctx.drawImage(flagImage(pennant, ratio), x, y, FLAG_WIDTH, FLAG_HEIGHT);
  else if (pennant) drawNarrowFlag(ctx, pennant, x, y, width);

  ctx.fillStyle = colour('raised');
  ctx.fillRect(x, barTop, width, bar);
  const filled = (value / 255) * bar;
  ctx.fillStyle = pennant && isOwnPennant(pennant) ? colour('hot') : colour('soft');
  ctx.fillRect(x, barTop + bar - filled, width, filled);

  if (layout.numbers) {
    ctx.textAlign = 'center';
    ctx.font = MONO;
    ctx.fillStyle = colour(pennant ? 'text' : 'soft');
    ctx.fillText(pennant ? WRITTEN[unit][value]! : '–', x + width / 2, barTop + bar + 13);
    if (cell.short) {
      ctx.font = SANS;
      ctx.fillStyle = colour('soft');
      ctx.fillText(cell.short, x + width / 2, barTop + bar + 28);
    }
    ctx.textAlign = 'left';
  }
  if (picture.inUse.has(cell.slot)) {
    ctx.fillStyle = colour('press');
    ctx.fill(new Path2D(`M${x + width - 9} ${barTop}h9v9z`));
  }
  if (cell.slot === chosen) {
    ctx.strokeStyle = colour('text');
    ctx.lineWidth = 2;
    ctx.strokeRect(x - 1, y - 1, width + 2, layout.cellHeight + 1);
  }
}

/** Where a letter has no room: the tint, and notches in the number of the letter's hatching. */
function drawNarrowFlag(ctx: CanvasRenderingContext2D, pennant: Pennant, x: number, y: number, width: number): void {
  ctx.fillStyle = pennantShape(pennant).tint;
  ctx.fillRect(x, y, width, 4);
  const notches = ['plain', 'dots', 'bars', 'chevrons'].indexOf(pennant.fill);
  ctx.fillStyle = PENNANT_INK;
  for (let i = 0; i < notches; i += 1) ctx.fillRect(x + 1 + i * 3, y + 1, 1.5, 2);
}
