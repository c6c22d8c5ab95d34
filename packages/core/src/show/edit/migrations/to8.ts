import type { Step } from './step';

/** A model says whether higher priorities get in before its limit of sources; most do. */
export const to8: Step = {
  to: 8,
  record: (kind, record) => (kind === 'model' ? { priorityFirst: true, ...record } : record),
};
