import type { Step } from './step';

/** A lamp has its gel, its circuit and notes. */
export const to12: Step = {
  to: 12,
  record: (kind, record) => (kind === 'lamp' ? { gel: '', circuit: '', notes: '', ...record } : record),
};
