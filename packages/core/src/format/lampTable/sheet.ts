/** One sheet of a table, as text. */
export interface SheetRow {
  /** As the file counts lines or rows, from 1 */
  readonly line: number;
  readonly cells: readonly string[];
}

export interface Sheet {
  /** Empty where the file has but one without a name */
  readonly name: string;
  /** Those that hold anything */
  readonly rows: readonly SheetRow[];
}
