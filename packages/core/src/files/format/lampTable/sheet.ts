/** One sheet of a table, as text, with what the text alone does not tell. */

/** A cell that the spreadsheet holds as a date, whatever was typed. */
export interface SheetDate {
  readonly year: number;
  /** From 1 */
  readonly month: number;
  readonly day: number;
  /** In which order its format says that it was typed; empty where the format leaves that open */
  readonly order: DateOrder | 'month, year' | '';
}
export const DATE_ORDERS = ['day first', 'month first'] as const;
export type DateOrder = (typeof DATE_ORDERS)[number];

export interface SheetRow {
  /** As the file counts lines or rows, from 1 */
  readonly line: number;
  readonly cells: readonly string[];
  /** Cells that are dates, by column from 0 */
  readonly dates?: ReadonlyMap<number, SheetDate>;
  /** Columns whose cell is a number that may have lost zeros at its end: 1.1 was typed as 1.1, 1.10 or 1.100 */
  readonly shortened?: ReadonlySet<number>;
  /** Out of sight in the spreadsheet, by a filter or by hand */
  readonly hidden?: boolean;
}

export interface Sheet {
  /** Empty where the file has but one without a name */
  readonly name: string;
  /** Those that hold anything */
  readonly rows: readonly SheetRow[];
  readonly hidden?: boolean;
  /** Columns that are out of sight, from 0 */
  readonly hiddenColumns?: ReadonlySet<number>;
}
