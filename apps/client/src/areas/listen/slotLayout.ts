/** Where each of the 512 slots stands on the field: in bands by lamp, or all in rows of 32. */
import { SLOTS } from '@taxiarch/core/base/address';
import { attributeShort } from '@taxiarch/core/rig/fixture';
import { lastChannel, type Span } from '@taxiarch/core/rig/patch';

export interface Cell {
  /** From 0 */
  readonly slot: number;
  readonly x: number;
  readonly y: number;
  readonly width: number;
  /** The attribute, spelt short; of an unpatched slot its channel. */
  readonly short: string;
}

export interface BandLabel {
  readonly text: string;
  readonly x: number;
  readonly y: number;
  readonly width: number;
}

/** A run of unpatched slots, folded. */
export interface Gap {
  /** From 0, both ends included */
  readonly from: number;
  readonly to: number;
  readonly x: number;
  readonly y: number;
}

export interface FieldLayout {
  readonly cells: readonly Cell[];
  readonly labels: readonly BandLabel[];
  readonly gaps: readonly Gap[];
  readonly cellHeight: number;
  readonly height: number;
  /** Cells are wide enough for numbers. */
  readonly numbers: boolean;
}

export const CELL = 30;
export const LABEL_HEIGHT = 20;
export const BAND_CELL_HEIGHT = 80;
export const GAP_WIDTH = 22;
const BETWEEN_BANDS = 8;
const BETWEEN_ROWS = 10;
/** A further row of one band, which needs no label. */
const CONTINUED_ROW = BAND_CELL_HEIGHT + 4;
const ROW = LABEL_HEIGHT + BAND_CELL_HEIGHT + BETWEEN_ROWS;

/** Slots in bands by lamp; unpatched runs are folded unless their first slot is in `opened`. */
export function layoutBands(spans: readonly Span[], width: number, opened: ReadonlySet<number>): FieldLayout {
  const cells: Cell[] = [];
  const labels: BandLabel[] = [];
  const gaps: Gap[] = [];
  let x = 0;
  let y = 0;

  const newRow = () => {
    x = 0;
    y += ROW;
  };

  /** A band that may run over several rows. */
  const band = (first: number, shorts: readonly string[], text: string) => {
    if (x > 0 && x + shorts.length * CELL > width) newRow();
    labels.push({ text, x, y, width: Math.min(width - x, shorts.length * CELL) });
    let wrapped = false;
    shorts.forEach((short, i) => {
      if (x + CELL > width && x > 0) {
        wrapped = true;
        x = 0;
        y += CONTINUED_ROW;
      }
      cells.push({ slot: first + i, x, y: y + LABEL_HEIGHT, width: CELL, short });
      x += CELL;
    });
    // A band of several rows ends its last one: its continued rows have no room for a label.
    x = wrapped ? Infinity : x + BETWEEN_BANDS;
  };

  const unpatched = (from: number, to: number) => {
    if (from > to) return;
    if (opened.has(from)) {
      band(
        from,
        Array.from({ length: to - from + 1 }, (_, i) => String(from + i + 1)),
        'unpatched',
      );
      return;
    }
    if (x + GAP_WIDTH > width) newRow();
    gaps.push({ from, to, x, y: y + LABEL_HEIGHT });
    x += GAP_WIDTH + BETWEEN_BANDS;
  };

  let next = 0;
  for (const span of spans) {
    const first = Math.max(next, span.channel - 1);
    const last = Math.min(SLOTS, lastChannel(span)) - 1;
    if (last < first) continue;
    unpatched(next, first - 1);
    const shorts: string[] = [];
    for (let slot = first; slot <= last; slot += 1) shorts.push(shortAt(span, slot - span.channel + 1));
    const { number, name } = span.patched.lamp;
    band(first, shorts, shorts.length < 4 ? String(number) : `${number} ${name}`);
    next = last + 1;
  }
  unpatched(next, SLOTS - 1);
  return { cells, labels, gaps, cellHeight: BAND_CELL_HEIGHT, height: y + ROW, numbers: true };
}

function shortAt({ layout }: Span, index: number): string {
  const found = layout[index];
  if (!found) return '';
  const [channel, byte] = found;
  if (byte > 0) return 'fine';
  return attributeShort(channel.attribute) + (channel.cell === undefined ? '' : channel.cell);
}

const PLAIN_COLUMNS = 32;
const PLAIN_HEIGHT = 44;

/** All 512 slots, 32 in a row. */
export function layoutPlain(width: number): FieldLayout {
  const cell = Math.floor(width / PLAIN_COLUMNS);
  const numbers = cell >= 24;
  const height = numbers ? PLAIN_HEIGHT + 16 : PLAIN_HEIGHT;
  const cells = Array.from({ length: SLOTS }, (_, slot) => ({
    slot,
    x: (slot % PLAIN_COLUMNS) * cell,
    y: Math.floor(slot / PLAIN_COLUMNS) * (height + 4),
    width: cell,
    short: '',
  }));
  return { cells, labels: [], gaps: [], cellHeight: height, height: (SLOTS / PLAIN_COLUMNS) * (height + 4), numbers };
}
