/** How long a thread itself did not run: a computer that slept or was busy. Whoever was silent meanwhile may have spoken. */

/** Less than this is the ordinary lateness of a timer. */
const NOTED_MS = 500;

export class HeldUp {
  private last: number | undefined;

  /** Called with the clock as often as a timer runs; returns how long the thread was held up since the last call, ms. */
  look(now: number): number {
    const gap = this.last === undefined ? 0 : now - this.last;
    this.last = now;
    return gap > NOTED_MS ? gap : 0;
  }
}
