/** Looking for sACN that is neither planned nor announced: groups are joined block by block, and listened to for a while. */
import type { SweepReport } from '@taxiarch/core/signal/stream';

/** Senders repeat what stands still at least this often (E1.31-2018, 6.6.1), and joining takes a little. */
const LISTEN_MS = 1500;
const BLOCK = 256;
/** So many looks are remembered. */
const MOST_LOOKED = 20;

export type Range = readonly [first: number, last: number];

export interface SweepSurroundings {
  /** Groups that can be joined for it */
  room(): number;
  /** The groups of a block are to be joined or left. */
  changed(): void;
  /** Whether levels of this sACN universe are heard */
  hears(universe: number): boolean;
  unixTime(): number;
}

export class Sweep {
  private todo: Range[] = [];
  private block: Range | undefined;
  private until = 0;
  private total = 0;
  private done = 0;
  private found: number[] = [];
  private looked: { from: number; to: number; at: number }[] = [];

  constructor(private readonly around: SweepSurroundings) {}

  /** Universes whose groups are joined for it now */
  *universes(): Iterable<number> {
    if (this.block) for (let universe = this.block[0]; universe <= this.block[1]; universe += 1) yield universe;
  }

  /** Begins; a sentence if it cannot. */
  start(ranges: readonly Range[], now: number): string | undefined {
    if (this.around.room() < 1)
      return 'As many multicast groups are joined as may be; allow more under This computer, or watch fewer universes.';
    this.todo = [...ranges];
    this.total = ranges.reduce((sum, [first, last]) => sum + last - first + 1, 0);
    this.done = 0;
    this.found = [];
    this.next(now);
    return undefined;
  }

  stop(): void {
    this.todo = [];
    this.block = undefined;
    this.around.changed();
  }

  tick(now: number): void {
    if (!this.block || now < this.until) return;
    const [from, to] = this.block;
    for (let universe = from; universe <= to; universe += 1) if (this.around.hears(universe)) this.found.push(universe);
    this.done += to - from + 1;
    this.remember(from, to);
    this.next(now);
  }

  private remember(from: number, to: number): void {
    const at = this.around.unixTime();
    const last = this.looked[this.looked.length - 1];
    if (last && last.to === from - 1) this.looked[this.looked.length - 1] = { from: last.from, to, at };
    else this.looked = [...this.looked.filter((one) => one.from < from || one.to > to), { from, to, at }];
    this.looked = this.looked.slice(-MOST_LOOKED);
  }

  private next(now: number): void {
    const range = this.todo.shift();
    const room = Math.min(BLOCK, this.around.room());
    if (!range || room < 1) this.block = undefined;
    else {
      const to = Math.min(range[1], range[0] + room - 1);
      this.block = [range[0], to];
      if (to < range[1]) this.todo.unshift([to + 1, range[1]]);
      this.until = now + LISTEN_MS;
    }
    this.around.changed();
  }

  report(): SweepReport {
    return {
      running: this.block !== undefined,
      total: this.total,
      done: this.done,
      at: this.block?.[0] ?? 0,
      found: this.found,
      looked: this.looked,
    };
  }
}
