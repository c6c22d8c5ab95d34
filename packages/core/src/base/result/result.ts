/** What an act or a reading came to: its value, or why not, for people in a sentence and for programs in a word. */

/** Something wrong at one place of an input: `at` is its path (`changes[0].after.name`), empty for the whole. */
export interface Fault {
  readonly at: string;
  readonly why: string;
}

export interface Refused<Reason extends string = string> {
  readonly ok: false;
  /** A word that stays the same while sentences are improved: `not-found`, `taken` */
  readonly reason: Reason;
  /** A sentence fit to be shown: what, why, and the next act where there is one */
  readonly why: string;
  /** Every fault found, the first of which is told in `why`; only where an input has many places */
  readonly faults?: readonly Fault[];
}

export type Result<Value, Reason extends string = string> =
  { readonly ok: true; readonly value: Value } | Refused<Reason>;

export const ok = <Value>(value: Value): { readonly ok: true; readonly value: Value } => ({ ok: true, value });

/**
 * Why something was not done. The reasons that acts on the show give: `not-understood` (text or input that
 * cannot be read), `out-of-range`, `not-found`, `taken` (somebody or something has it already), `nothing`
 * (nothing was chosen, or nothing would change) and `not-possible` (the show or the world does not allow it).
 */
export const refuse = <Reason extends string = ActReason>(
  reason: Reason,
  why: string,
  faults?: readonly Fault[],
): Refused<Reason> => ({ ok: false, reason, why, ...(faults && { faults }) });

export type ActReason = 'not-understood' | 'out-of-range' | 'not-found' | 'taken' | 'nothing' | 'not-possible';

/** An input that was checked part by part: it is as it should be, or every fault is told. */
export type Checked<Value> =
  { readonly ok: true; readonly value: Value } | (Refused<'not-understood'> & { readonly faults: readonly Fault[] });

/** Several faults as one refusal; `faults` must hold at least one. */
export const refuseAll = (faults: readonly Fault[]) =>
  ({ ok: false, reason: 'not-understood', why: faults[0]!.why, faults }) as const;
