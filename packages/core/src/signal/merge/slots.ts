/**
 * Who owns each slot: of all that send a universe, the highest priority wins; among equals the
 * highest level (HTP) or the latest change (LTP). Per-slot priority, where a source sends it,
 * replaces its packet priority; 0 there means that the source does not control the slot.
 */
import { SLOTS } from '../../base/address';

export const MERGE_MODES = ['htp', 'ltp'] as const;
export type MergeMode = (typeof MERGE_MODES)[number];

/** Owner of a slot that nobody controls. */
export const NOBODY = 0xff;
/** Most sources told apart on one universe. */
export const MOST_CONTENDERS = NOBODY;

export interface Contender {
  /** What is written as owner where this one wins: 0–254, unique among the contenders. */
  readonly mark: number;
  /** 0–200 */
  readonly priority: number;
  /** Levels; slots at and beyond `count` are not controlled. */
  readonly values: Uint8Array;
  readonly count: number;
  /** 512 per-slot priorities, or null if the source sends none. */
  readonly slotPriority: Uint8Array | null;
  /** When each slot last changed, in the caller's milliseconds; needed for LTP only. */
  readonly changedAt: Float64Array | null;
}

/** What one stream says about the slot that is being inspected. */
export interface SlotContender {
  readonly mark: number;
  readonly value: number;
  /** Priority for this slot; −1 if the stream does not control it. */
  readonly priority: number;
  /** Milliseconds since its level last changed, or null if not known. */
  readonly age: number | null;
}

export const NOT_CONTROLLED = -1;
/** The highest priority that there is (ANSI E1.31, 6.2.3); what a source sends above it counts as this. */
const HIGHEST = 200;

/** The priority with which a contender controls a slot (0-based), or −1. */
export function priorityAt(contender: Contender, slot: number): number {
  if (slot >= contender.count) return NOT_CONTROLLED;
  if (contender.slotPriority === null) return contender.priority;
  const own = contender.slotPriority[slot]!;
  return own === 0 ? NOT_CONTROLLED : Math.min(own, HIGHEST);
}

/**
 * Merges into `values` and `owners` (512 each). `owners` is read before it is written: among
 * sources that hold a slot at one and the same level, the owner so far stays the owner.
 */
export function mergeSlots(
  contenders: readonly Contender[],
  mode: MergeMode,
  values: Uint8Array,
  owners: Uint8Array,
): void {
  const only = contenders.length === 1 ? contenders[0]! : undefined;
  if (only && only.slotPriority === null) {
    values.set(only.values.subarray(0, only.count));
    values.fill(0, only.count);
    owners.fill(only.mark, 0, only.count);
    owners.fill(NOBODY, only.count);
    return;
  }
  for (let slot = 0; slot < SLOTS; slot += 1) {
    const before = owners[slot]!;
    let best: Contender | undefined;
    let bestPriority = NOT_CONTROLLED;
    for (const contender of contenders) {
      const priority = priorityAt(contender, slot);
      if (priority < 0 || priority < bestPriority) continue;
      if (best === undefined || priority > bestPriority || wins(contender, best, slot, mode, before)) {
        best = contender;
        bestPriority = priority;
      }
    }
    values[slot] = best === undefined ? 0 : best.values[slot]!;
    owners[slot] = best === undefined ? NOBODY : best.mark;
  }
}

/** Whether `one` displaces `other`, both controlling the slot at one priority. */
function wins(one: Contender, other: Contender, slot: number, mode: MergeMode, before: number): boolean {
  if (mode === 'ltp') {
    const later = (one.changedAt?.[slot] ?? 0) - (other.changedAt?.[slot] ?? 0);
    return later === 0 ? one.mark === before : later > 0;
  }
  const higher = one.values[slot]! - other.values[slot]!;
  return higher === 0 ? one.mark === before : higher > 0;
}
