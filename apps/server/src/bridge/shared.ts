/** Merged levels and owners of every universe, in memory shared between the engine's thread and the server's. */
import { SLOTS } from '@taxiarch/core/base/address';
import { NOBODY } from '@taxiarch/core/signal/merge';

/** Most universes told apart at once. */
export const MOST_UNIVERSES = 8192;
const ROW = 2 * SLOTS;

/**
 * One row a universe: 512 levels, then 512 owners. One thread writes; any may read.
 * A row's version is odd while it is being written, so a reader can tell that it must read again.
 */
export class SharedLevels {
  private readonly versions: Int32Array;
  private readonly rows: Uint8Array;

  constructor(readonly memory = new SharedArrayBuffer(MOST_UNIVERSES * (4 + ROW))) {
    this.versions = new Int32Array(memory, 0, MOST_UNIVERSES);
    this.rows = new Uint8Array(memory, MOST_UNIVERSES * 4);
  }

  /** Writes a row if it differs from what is there, so that a look that stands still costs readers nothing. */
  write(row: number, values: Uint8Array, owners: Uint8Array): void {
    const start = row * ROW;
    let same = true;
    for (let i = 0; i < SLOTS && same; i += 1)
      same = this.rows[start + i] === values[i] && this.rows[start + SLOTS + i] === owners[i];
    if (same) return;
    Atomics.add(this.versions, row, 1);
    this.rows.set(values, row * ROW);
    this.rows.set(owners, row * ROW + SLOTS);
    Atomics.add(this.versions, row, 1);
  }

  /** Nothing is heard here, and nobody controls anything. */
  clear(row: number): void {
    Atomics.add(this.versions, row, 1);
    this.rows.fill(0, row * ROW, row * ROW + SLOTS);
    this.rows.fill(NOBODY, row * ROW + SLOTS, (row + 1) * ROW);
    Atomics.add(this.versions, row, 1);
  }

  version(row: number): number {
    return Atomics.load(this.versions, row);
  }

  /** Copies a row; returns the version copied. Gives up on an unlucky race and copies what is there. */
  read(row: number, values: Uint8Array, owners: Uint8Array): number {
    let version = 0;
    for (let attempt = 0; attempt < 8; attempt += 1) {
      version = this.version(row);
      values.set(this.rows.subarray(row * ROW, row * ROW + SLOTS));
      owners.set(this.rows.subarray(row * ROW + SLOTS, (row + 1) * ROW));
      if (version % 2 === 0 && version === this.version(row)) break;
    }
    return version;
  }
}
