/** What lamps answered and how devices stand, for handlers of the show’s thread. */
import { rollOf, type RollNow, type RollRow } from '@taxiarch/core/truth/roll';
import { StoodNow } from '@taxiarch/core/proving/walk';
import type { ShowStore } from '../store/store';
import type { Call } from './api';

/** Rows of the roll call; none before anybody has called it. */
export function rollRows(store: ShowStore, roll: RollNow | undefined): readonly RollRow[] {
  if (!roll || roll.progress.began === 0) return [];
  const { records, patch } = store.rig();
  return rollOf(records, patch, roll).rows;
}

export const stoodNow = (store: ShowStore, { live, roll }: Pick<Call<unknown>, 'live' | 'roll'>): StoodNow =>
  new StoodNow(store.records(), live, rollRows(store, roll));
