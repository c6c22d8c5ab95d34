/** Shows and histories of older versions, brought to the form of today step by step. */
import equal from 'fast-deep-equal';
import type { AnyRecord, Kind } from '../../records';
import type { Change, Edit } from '../edit';
import type { Loose, LooseShow, Step } from './step';
import { to10 } from './to10';
import { to11 } from './to11';
import { to12 } from './to12';
import { to2 } from './to2';
import { to3 } from './to3';
import { to4 } from './to4';
import { to5 } from './to5';
import { to6 } from './to6';
import { to7 } from './to7';
import { to8 } from './to8';
import { to9 } from './to9';
import { versionSeen } from './unnumbered';

/** In sequence. A new one is a file beside these and a line here. */
const STEPS: readonly Step[] = [to2, to3, to4, to5, to6, to7, to8, to9, to10, to11, to12];

/** The version in which records are written today. */
export const RECORD_VERSION = STEPS[STEPS.length - 1]!.to;

/** Kinds whose records make or take part of others in a step that looks at whole shows. */
const ENTANGLED: ReadonlySet<string> = new Set(['source', 'machine', 'link']);

/** The version before the first step that looks at whole shows. */
const LAST_ALONE = STEPS.find((step) => 'show' in step)!.to - 1;

/** A record brought up as far as it can be by itself. */
function upgradeRecord(kind: string, record: Loose, from: number): Loose {
  const last = ENTANGLED.has(kind) ? LAST_ALONE : RECORD_VERSION;
  return STEPS.reduce(
    (now, step) => ('record' in step && step.to > from && step.to <= last ? step.record(kind, now) : now),
    record,
  );
}

/** All records of a show of version `from`, as they are written today; they are not checked. */
export const upgradeShow = (records: LooseShow, from: number): LooseShow =>
  STEPS.filter((step) => step.to > from).reduce<LooseShow>((now, step) => {
    if ('show' in step) return step.show(now);
    return Object.fromEntries(
      Object.entries(now).map(([kind, all]) => [kind, all.map((record) => step.record(kind, record))]),
    );
  }, records);

/** An edit as it stands in a history: of which version, if it says so */
export interface StoredEdit extends Omit<Edit, 'changes'> {
  readonly v?: number;
  readonly changes: readonly {
    readonly kind: string;
    readonly id: string;
    readonly before: Loose | null;
    readonly after: Loose | null;
  }[];
}

type LooseMaps = Map<string, Map<string, Loose>>;

/**
 * Brings a history up, edit by edit from the first. Where a step joins records, what an edit did is found
 * anew: the show before it and the show after it are both brought up, and the difference is the edit.
 */
export class HistoryUpgrade {
  private readonly old: LooseMaps = new Map();
  private now: LooseMaps = new Map();

  next({ v, ...edit }: StoredEdit): Edit {
    if (v === RECORD_VERSION) return edit as Edit;
    const alone = edit.changes.map(({ kind, id, before, after }) => ({
      kind,
      id,
      before: before && upgradeRecord(kind, before, v ?? versionSeen(kind, before)),
      after: after && upgradeRecord(kind, after, v ?? versionSeen(kind, after)),
    }));
    for (const { kind, id, after } of alone) if (ENTANGLED.has(kind)) put(this.old, kind, id, after);
    const free = alone.filter(({ kind }) => !ENTANGLED.has(kind));
    const joined = alone.length > free.length ? this.difference(edit.seq) : [];
    return { ...edit, changes: [...free, ...joined] as unknown as readonly Change[] };
  }

  /** What the entangled records became by the last edit. */
  private difference(seq: number): Change[] {
    const shows = Object.fromEntries([...this.old].map(([kind, all]) => [kind, [...all.values()]]));
    const then = upgradeShow(shows, LAST_ALONE);
    const next: LooseMaps = new Map(
      Object.entries(then).map(([kind, all]) => [kind, new Map(all.map((one) => [one['id'] as string, one]))]),
    );
    const changes: Change[] = [];
    for (const kind of new Set([...this.now.keys(), ...next.keys()])) {
      const [before, after] = [
        this.now.get(kind) ?? new Map<string, Loose>(),
        next.get(kind) ?? new Map<string, Loose>(),
      ];
      for (const id of new Set([...before.keys(), ...after.keys()])) {
        const was = before.get(id) ?? null;
        const is = after.get(id) ?? null;
        if (sameContent(was, is)) {
          // Its number is of the edit that last changed it as it is today.
          if (was && is) after.set(id, was);
          continue;
        }
        const stamped = is && { ...is, rev: seq };
        if (stamped) after.set(id, stamped);
        changes.push({
          kind: kind as Kind,
          id,
          before: was as AnyRecord | null,
          after: stamped as unknown as AnyRecord | null,
        });
      }
    }
    this.now = next;
    return changes;
  }
}

const sameContent = (one: Loose | null, other: Loose | null): boolean =>
  one === null || other === null ? one === other : equal({ ...one, rev: 0 }, { ...other, rev: 0 });

function put(maps: LooseMaps, kind: string, id: string, record: Loose | null): void {
  const all = maps.get(kind) ?? new Map<string, Loose>();
  maps.set(kind, all);
  if (record === null) all.delete(id);
  else all.set(id, record);
}
