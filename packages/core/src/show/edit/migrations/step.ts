/** One step in the sequence of record versions. */

/** A record of a version that no type describes any more */
export type Loose = Readonly<Record<string, unknown>>;
/** All records of a show, by kind */
export type LooseShow = Readonly<Record<string, readonly Loose[]>>;

export type Step =
  /** Each record for itself */
  | { readonly to: number; readonly record: (kind: string, record: Loose) => Loose }
  /** All records of a show together, because some become part of others */
  | { readonly to: number; readonly show: (records: LooseShow) => LooseShow };
