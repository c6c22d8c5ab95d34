/** What the screens of Wire say in the same words. */
import type { MachineEntry, MachineState } from '@taxiarch/core/network/node';
import { count } from '@/ui';

export const STATES: readonly MachineState[] = ['drifted', 'missing', 'stranger', 'matched', 'unseen'];

export const countStates = (entries: readonly MachineEntry[]): Record<MachineState, number> => {
  const counts: Record<MachineState, number> = { matched: 0, drifted: 0, missing: 0, stranger: 0, unseen: 0 };
  for (const { state } of entries) counts[state] += 1;
  return counts;
};

/** “1 drifted, 2 missing”: what is not as planned; empty if all is. */
export function notAsPlanned(counts: Record<MachineState, number>): string {
  return [
    counts.drifted > 0 && `${counts.drifted} drifted`,
    counts.missing > 0 && `${counts.missing} missing`,
    counts.stranger > 0 && count(counts.stranger, 'stranger'),
  ]
    .filter((part) => part !== false)
    .join(', ');
}
