import type { Step } from './step';

/** A machine says how its plug is reached, a route by what its frames are let out together, a mark at which time code it was made. */
export const to11: Step = {
  to: 11,
  record: (kind, record) => {
    if (kind === 'machine') return { line: null, ...record };
    if (kind === 'route') return { sync: 0, ...record };
    if (kind === 'mark') return { timeCode: '', ...record };
    return record;
  },
};
