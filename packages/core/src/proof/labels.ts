/** Labels for nodes, cables and cases: what stands on each, and where it lies on a sheet. */
import { formatAddress } from '../address';
import { addressesOf } from '../ip';
import type { Patch } from '../patch';
import type { ShowRecords } from '../records';
import { ok, refuse, type Result } from '../result';

export const LABEL_KINDS = ['nodes', 'cables', 'lamps'] as const;
export type LabelKind = (typeof LABEL_KINDS)[number];

/** Sheets of A4, by how many labels are on them: the sizes that many makers share. */
export const LABEL_SHEETS = ['A4 3 × 7', 'A4 3 × 8', 'A4 2 × 4', 'A4 5 × 13'] as const;
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
};

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
