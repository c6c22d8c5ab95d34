import { runsOf } from '../../../base/address';
import type { Step } from './step';

const LINE = {
  to: null,
  interface: '',
  delivery: 'usual',
  addresses: [],
  rate: 44,
  slotPriority: false,
  on: true,
  whenIdle: true,
  note: '',
} as const;

/** Senders had a list of universes, all at one priority. */
export const to4: Step = {
  to: 4,
  record(kind, old) {
    if (kind !== 'source') return old;
    const { universes = [], priority = 100, ...rest } = old;
    const runs = runsOf([...new Set(universes as number[])].sort((a, b) => a - b));
    return { ...rest, ranges: runs.map(([from, last]) => ({ ...LINE, from, count: last - from + 1, priority })) };
  },
};
