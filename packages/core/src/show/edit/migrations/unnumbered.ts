/**
 * Records of histories that were written before their lines told a version: which version each is of is
 * seen from what it holds. Nothing that is written today passes here.
 */
import type { Loose } from './step';

/** By kind: what a record lacks that is of an earlier version than the one named. */
const FIRST_WITH: Readonly<Record<string, readonly (readonly [version: number, field: string])[]>> = {
  show: [[2, 'file']],
  type: [[2, 'kind']],
  lamp: [[2, 'blocks']],
  machine: [
    [2, 'controller'],
    [3, 'interfaces'],
  ],
  source: [[4, 'ranges']],
  model: [[5, 'speed']],
  link: [[5, 'startsFirst']],
};

/** The last version that was written without its number. */
const LAST_UNNUMBERED = 5;

export const versionSeen = (kind: string, record: Loose): number =>
  (FIRST_WITH[kind]?.find(([, field]) => !(field in record))?.[0] ?? LAST_UNNUMBERED + 1) - 1;
