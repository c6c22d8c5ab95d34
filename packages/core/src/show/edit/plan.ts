/** What is going to be done to the show, told before it is done. */
import type { AnyRecord, Kind, ShowRecords } from '../records';
import { applyToRecords, settleChanges, toMaps, type ProposedChange } from './edit';

/** One line of a preview: what it is about, how it was and how it would be; empty for what is not there. */
export interface PlanLine {
  readonly subject: string;
  readonly before: string;
  readonly after: string;
}

/** The changes of one edit, and the lines that tell a person what they would write. */
export interface Plan {
  /** In the past tense, as the history tells it */
  readonly sentence: string;
  readonly changes: readonly ProposedChange[];
  readonly lines: readonly PlanLine[];
}

/** A change of a record that is there. */
export const changed = (kind: Kind, before: AnyRecord, after: AnyRecord): ProposedChange => ({
  kind,
  id: before.id,
  rev: before.rev,
  after,
});
export const added = (kind: Kind, after: AnyRecord): ProposedChange => ({ kind, id: after.id, rev: null, after });
export const removed = (kind: Kind, before: AnyRecord): ProposedChange => ({
  kind,
  id: before.id,
  rev: before.rev,
  after: null,
});
/** A record as it should be, whether it is there already or not. */
export const put = (kind: Kind, before: AnyRecord | undefined, after: AnyRecord): ProposedChange =>
  before ? changed(kind, before, after) : added(kind, after);

/** The records as they would be. */
export function recordsAfter(records: ShowRecords, changes: readonly ProposedChange[]): ShowRecords {
  return applyToRecords(records, settleChanges(toMaps(records), changes, 0));
}

export const countOf = (count: number, one: string, many = `${one}s`): string => `${count} ${count === 1 ? one : many}`;
