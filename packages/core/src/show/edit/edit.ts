/** The edit: the one way in which a show changes. A diff of records with an author, a time and a sentence. */
import equal from 'fast-deep-equal';
import { type AnyRecord, type Kind, KINDS, type ShowRecords } from '../records';

/** One record added (before null), updated, or removed (after null). */
export interface Change {
  readonly kind: Kind;
  readonly id: string;
  readonly before: AnyRecord | null;
  readonly after: AnyRecord | null;
}

export interface Edit {
  /** Rising by one from 1 */
  readonly seq: number;
  /** ISO 8601, UTC */
  readonly at: string;
  readonly author: string;
  /** What was done, in the past tense: "Moved lamp 101 to 3/47". */
  readonly sentence: string;
  readonly changes: readonly Change[];
  /** The edit that this one takes back, if it is an undo or a redo. */
  readonly undoes?: number | undefined;
}

/** A change as a client asks for it: the record as it should be, and the revision at which it was read. */
export interface ProposedChange {
  readonly kind: Kind;
  readonly id: string;
  /** Revision of the record that was read; null to add a new one. */
  readonly rev: number | null;
  /** The record as it should be, or null to remove it. Its own `rev` is ignored. */
  readonly after: AnyRecord | null;
}

export interface ProposedEdit {
  readonly author: string;
  readonly sentence: string;
  readonly changes: readonly ProposedChange[];
}

/** A proposed change that was made on a record that has changed since. */
export interface Conflict {
  readonly kind: Kind;
  readonly id: string;
  readonly readAt: number | null;
  /** The record as it is now; null if it is gone. */
  readonly now: AnyRecord | null;
}

/** Records by kind and id, for looking up and changing in place. */
export type ShowMaps = { readonly [K in Kind]: Map<string, AnyRecord> };

export function toMaps(records: ShowRecords): ShowMaps {
  const entries = KINDS.map((kind) => [kind, new Map(records[kind].map((record) => [record.id, record]))]);
  return Object.fromEntries(entries) as ShowMaps;
}

export function toRecords(maps: ShowMaps): ShowRecords {
  return Object.fromEntries(KINDS.map((kind) => [kind, [...maps[kind].values()]])) as unknown as ShowRecords;
}

/** The proposed changes whose record is no longer as it was read. */
export function findConflicts(maps: ShowMaps, changes: readonly ProposedChange[]): Conflict[] {
  const conflicts: Conflict[] = [];
  for (const { kind, id, rev } of changes) {
    const now = maps[kind].get(id) ?? null;
    if ((now?.rev ?? null) !== rev) conflicts.push({ kind, id, readAt: rev, now });
  }
  return conflicts;
}

/** Turns a proposal without conflicts into the changes that edit number `seq` makes. */
export function settleChanges(maps: ShowMaps, changes: readonly ProposedChange[], seq: number): Change[] {
  return changes.map(({ kind, id, after }) => ({
    kind,
    id,
    before: maps[kind].get(id) ?? null,
    after: after === null ? null : ({ ...after, id, rev: seq } as AnyRecord),
  }));
}

/** Carries out an edit on `maps`, in place. */
export function applyChanges(maps: ShowMaps, changes: readonly Change[]): void {
  for (const { kind, id, after } of changes) {
    if (after === null) maps[kind].delete(id);
    else maps[kind].set(id, after);
  }
}

/** Lists with an edit carried out; lists that it does not touch stay the same objects. */
export function applyToRecords(records: ShowRecords, changes: readonly Change[]): ShowRecords {
  const touched = new Set(changes.map((change) => change.kind));
  const maps = toMaps(records);
  applyChanges(maps, changes);
  const entries = KINDS.map((kind) => [kind, touched.has(kind) ? [...maps[kind].values()] : records[kind]]);
  return Object.fromEntries(entries) as unknown as ShowRecords;
}

export const sameContent = (one: AnyRecord | null, other: AnyRecord | null): boolean =>
  one === null || other === null ? one === other : equal({ ...one, rev: 0 }, { ...other, rev: 0 });

/**
 * What would take `edit` back: every record as it was before. A record that has since become
 * something else keeps the edit's own revision, so that the revision check refuses it.
 */
export const inverseOf = (edit: Edit, maps: ShowMaps): ProposedChange[] =>
  [...edit.changes].reverse().map(({ kind, id, before, after }) => {
    const now = maps[kind].get(id) ?? null;
    const asLeft = after === null ? null : edit.seq;
    return { kind, id, rev: sameContent(now, after) ? (now?.rev ?? null) : asLeft, after: before };
  });

/** The edits that undo and redo would take back next for one author. An edit and its undo cancel. */
export function undoState(history: readonly Edit[], author: string): { undo?: Edit; redo?: Edit } {
  let undoable: Edit[] = [];
  let redoable: Edit[] = [];
  for (const edit of history) {
    if (edit.author !== author) continue;
    const target = edit.undoes;
    if (target === undefined) {
      undoable.push(edit);
      redoable = [];
    } else if (redoable[redoable.length - 1]?.seq === target) {
      redoable.pop();
      undoable.push(edit);
    } else {
      undoable = undoable.filter((done) => done.seq !== target);
      redoable.push(edit);
    }
  }
  const undo = undoable[undoable.length - 1];
  const redo = redoable[redoable.length - 1];
  return { ...(undo && { undo }), ...(redo && { redo }) };
}
