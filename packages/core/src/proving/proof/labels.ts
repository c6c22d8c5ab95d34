/** Labels for nodes, cables and cases: what stands on each, and where it lies on a sheet. */
import { formatAddress } from '../../base/address';
import { addressesOf } from '../../network/ip';
import type { Patch } from '../../rig/patch';
import type { ShowRecords } from '../../show/records';
import { ok, refuse, type Result } from '../../base/result';
import { wrap } from './measure';

export const LABEL_KINDS = ['nodes', 'cables', 'lamps'] as const;
export type LabelKind = (typeof LABEL_KINDS)[number];

export const PAPERS = ['A4', 'Letter'] as const;
export type Paper = (typeof PAPERS)[number];
/** Width and height, mm (ISO 216; ANSI/ASME Y14.1) */
export const PAPER_SIZES: Readonly<Record<Paper, readonly [number, number]>> = {
  A4: [210, 297],
  Letter: [215.9, 279.4],
};

/** Sheets of labels, by how many are on them: the sizes that many makers share. */
export const LABEL_SHEETS = [
  'A4 3 × 7',
  'A4 3 × 8',
  'A4 2 × 4',
  'A4 5 × 13',
  'Letter 3 × 10',
  'Letter 2 × 5',
  'Letter 2 × 3',
] as const;
export type LabelSheet = (typeof LABEL_SHEETS)[number];

/** mm */
export interface SheetSize {
  readonly columns: number;
  readonly rows: number;
  readonly width: number;
  readonly height: number;
  readonly left: number;
  readonly top: number;
  readonly gap: number;
}

export const SHEETS: Readonly<Record<LabelSheet, SheetSize>> = {
  'A4 3 × 7': { columns: 3, rows: 7, width: 63.5, height: 38.1, left: 7.2, top: 15.1, gap: 2.5 },
  'A4 3 × 8': { columns: 3, rows: 8, width: 63.5, height: 33.9, left: 7.2, top: 12.9, gap: 2.5 },
  'A4 2 × 4': { columns: 2, rows: 4, width: 99.1, height: 67.7, left: 4.7, top: 13.1, gap: 2.5 },
  'A4 5 × 13': { columns: 5, rows: 13, width: 38.1, height: 21.2, left: 4.7, top: 10.7, gap: 2.5 },
  'Letter 3 × 10': { columns: 3, rows: 10, width: 66.675, height: 25.4, left: 4.7625, top: 12.7, gap: 3.175 },
  'Letter 2 × 5': { columns: 2, rows: 5, width: 101.6, height: 50.8, left: 3.96, top: 12.7, gap: 4.78 },
  'Letter 2 × 3': { columns: 2, rows: 3, width: 101.6, height: 84.67, left: 3.96, top: 12.7, gap: 4.78 },
};
export const paperOf = (sheet: LabelSheet): Paper => (sheet.startsWith('Letter') ? 'Letter' : 'A4');

/** Free space around what is printed on a label, mm */
export const LABEL_EDGE = 2.5;
/** mm of a point */
const POINT = 25.4 / 72;
const LINE_HEIGHT = 1.25;

export interface LaidLabel {
  /** Side of the picture, mm */
  readonly side: number;
  /** Font sizes of title and lines, points */
  readonly title: number;
  readonly small: number;
  readonly titleLines: readonly string[];
  readonly lines: readonly string[];
}

/** What is printed on a label of a sheet: nothing reaches beyond it; what has no room ends in an ellipsis. */
export function layLabel({ title, lines }: Label, sheet: LabelSheet): LaidLabel {
  const { width, height } = SHEETS[sheet];
  const side = Math.min(height - 2 * LABEL_EDGE, width * 0.4);
  const beside = (width - side - 3 * LABEL_EDGE) / POINT;
  const room = (height - 2 * LABEL_EDGE) / POINT;
  const big = height > 30 ? 11 : 8;
  const small = big - 2;
  const titleLines = wrap(title, beside, big * 1.06, Math.max(1, Math.floor(room / 2 / (big * LINE_HEIGHT))));
  let left = Math.floor((room - titleLines.length * big * LINE_HEIGHT) / (small * LINE_HEIGHT));
  const laid: string[] = [];
  lines.forEach((line, i) => {
    // Each further line gets at least one row.
    const most = Math.max(0, left - (lines.length - 1 - i));
    const wrapped = most === 0 ? [] : wrap(line, beside, small, Math.min(most, 2));
    left -= wrapped.length;
    laid.push(...wrapped);
  });
  return { side, title: big, small, titleLines, lines: laid };
}

export interface Label {
  readonly title: string;
  readonly lines: readonly string[];
  /** Page that its picture opens, without the server’s address */
  readonly path: string;
}

export interface PlacedLabel {
  readonly label: Label;
  readonly page: number;
  /** mm from the top left corner of the sheet */
  readonly x: number;
  readonly y: number;
}

/** In the order of the sheet, after `skip` places that are used already. */
export const placed = (labels: readonly Label[], sheet: LabelSheet, skip: number): PlacedLabel[] => {
  const { columns, rows, width, height, left, top, gap } = SHEETS[sheet];
  return labels.map((label, i) => {
    const at = i + skip;
    const cell = at % (columns * rows);
    return {
      label,
      page: Math.floor(at / (columns * rows)),
      x: left + (cell % columns) * (width + gap),
      y: top + Math.floor(cell / columns) * height,
    };
  });
};

interface Wish {
  readonly what: LabelKind;
  /** Ids of machines or lamps; all if empty */
  readonly ids: readonly string[];
  /** One for the case beside each */
  readonly cases: boolean;
}

export function labelsOf({ what, ids, cases }: Wish, { machine, place }: ShowRecords, patch: Patch): Result<Label[]> {
  const wanted = new Set(ids);
  const is = (id: string) => wanted.size === 0 || wanted.has(id);
  const places = new Map(place.map((one) => [one.id, one.name]));
  const placeOf = (id: string | null) => places.get(id ?? '') ?? '';
  const machines = machine.filter(({ id }) => is(id));
  const outs = (ports: (typeof machine)[number]['ports']) => ports.filter(({ use }) => use === 'out');
  const made = ((): Label[] => {
    switch (what) {
      case 'nodes':
        return machines.flatMap((one) => [
          {
            title: one.name,
            lines: [
              placeOf(one.placeId),
              addressesOf(one)
                .map(({ text }) => text)
                .join(', '),
              outs(one.ports)
                .map(({ number, universe }) => `${number}: u${universe}`)
                .join('  '),
            ].filter(Boolean),
            path: `/wire/${encodeURIComponent(one.id)}`,
          },
          ...(cases
            ? [
                {
                  title: one.name,
                  lines: ['Case', placeOf(one.placeId)].filter(Boolean),
                  path: `/wire/${encodeURIComponent(one.id)}`,
                },
              ]
            : []),
        ]);
      case 'cables':
        return machines.flatMap((one) =>
          outs(one.ports).map(({ number, universe, label }) => ({
            title: `Universe ${universe}`,
            lines: [`${one.name}, port ${number}`, label, placeOf(one.placeId)].filter(Boolean),
            path: `/wire/${encodeURIComponent(one.id)}`,
          })),
        );
      case 'lamps':
        return patch
          .all()
          .filter(({ lamp, run }) => !run && is(lamp.id))
          .map(({ lamp, type, mode }) => ({
            title: `${lamp.number} ${lamp.name}`,
            lines: [formatAddress(lamp), `${type.name}, ${mode.name}`, placeOf(lamp.placeId)].filter(Boolean),
            path: `/rig/${encodeURIComponent(lamp.id)}`,
          }));
    }
  })();
  return made.length === 0 ? refuse('nothing', 'Nothing of this is to be labelled.') : ok(made);
}
