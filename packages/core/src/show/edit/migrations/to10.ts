import type { Step } from './step';

/** A lamp has what papers and files of others say of it; a type says whether it is known, and how far it moves and shines. */
export const to10: Step = {
  to: 10,
  record: (kind, record) => {
    if (kind === 'lamp') return { written: '', unit: '', position: '', class: '', function: '', uuid: '', ...record };
    if (kind === 'type') return { unknown: false, pan: 0, tilt: 0, beam: 0, field: 0, ...record };
    return record;
  },
};
