/** Which universes the engine is to merge and tell of, and in which row of the shared levels each stands. */
import { ROUTE_KEYS } from '@taxiarch/core/whole/contract/feed';
import type { ToEngine } from './engineMessages';
import { MOST_UNIVERSES } from './shared';

type Watch = Extract<ToEngine, { type: 'watch' }>;

export class Watching {
  private readonly rows = new Map<number, number>();
  private looked: readonly number[] = [];
  private merged: readonly number[] = [];
  private watched: Watch = { type: 'watch', keys: [], slots: [] };

  constructor(private readonly tell: (message: Watch) => void) {}

  /** What somebody looks at: universes by wire key, and slots whose contenders are told. */
  watch(keys: readonly number[], slots: Watch['slots']): void {
    this.looked = keys;
    this.watched = { type: 'watch', keys: [...new Set([...keys, ...this.merged])], slots };
    this.tell(this.watched);
  }

  /** Universes and routes that are merged although nobody looks at them: they leave by a plug. */
  keepMerged(keys: readonly number[]): void {
    if (String(keys) === String(this.merged)) return;
    this.merged = keys;
    this.watch(this.looked, this.watched.slots);
  }

  note(rows: Iterable<readonly [key: number, row: number]>): void {
    for (const [key, row] of rows) this.rows.set(key, row);
  }

  /** Row of a universe in the shared levels; undefined until it has one. */
  rowOf(key: number): number | undefined {
    return key >= ROUTE_KEYS ? MOST_UNIVERSES - 1 - (key - ROUTE_KEYS) : this.rows.get(key);
  }

  /** The engine is gone, and its rows with it. */
  gone(): void {
    this.rows.clear();
  }

  /** A new engine is told what the one before was. */
  back(): void {
    this.tell(this.watched);
  }
}
