import type { Loose, Step } from './step';

const SINCE: Readonly<Record<string, Loose>> = {
  show: { file: null },
  type: { kind: 'other', file: null },
  lamp: { blocks: [], groups: [], tag: '', twin: null, locked: false },
  machine: { controller: null },
};

/** Lamps got groups, marks and further addresses; types their kind; controllers their pixels. */
export const to2: Step = { to: 2, record: (kind, record) => ({ ...SINCE[kind], ...record }) };
