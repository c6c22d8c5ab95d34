/**
 * The DMX line of a port: frames at the box's rate, and RDM in the gaps between them, one request at a time. An
 * exchange that does not fit delays the frame behind it, as on a real line (ANSI E1.20-2010, 3).
 */
import { FRAME_MS, decodeRdm, encodeRdm, exchangeMs, Rdm } from '@taxiarch/core/protocol/rdm';
import type { HungRig, Plug } from '@taxiarch/core/truth/hung';

const START_CODE = 1;
/** Finding out who is there takes this long, and so much more for each, ms */
const SEARCH_MS = 40;
const EACH_MS = 6;
/** Intervals between frames that are kept for looking at */
const KEPT = 4000;

export class DmxLine {
  private frameAt: number;
  private freeAt = 0;
  private readonly period: number;
  private readonly intervals: number[] = [];

  constructor(
    private readonly plug: Plug,
    private readonly rig: HungRig,
    rate: number,
    private readonly now: () => number,
  ) {
    this.period = Math.max(1000 / rate, FRAME_MS);
    this.frameAt = now();
  }

  private noteFrame(interval: number): void {
    this.intervals.push(interval);
    if (this.intervals.length > KEPT) this.intervals.splice(0, this.intervals.length - KEPT);
  }

  private runTo(time: number): void {
    while (this.frameAt + this.period <= time) {
      this.frameAt += this.period;
      this.noteFrame(this.period);
    }
  }

  /** Takes the line for so long as soon as it is free; gives when that ends. */
  private occupy(ms: number): number {
    const asked = Math.max(this.now(), this.freeAt);
    this.runTo(asked);
    let start = Math.max(asked, this.frameAt + FRAME_MS);
    if (start >= this.frameAt + this.period) {
      this.runTo(start);
      start = Math.max(start, this.frameAt + FRAME_MS);
    }
    const end = start + ms;
    if (end > this.frameAt + this.period) {
      this.noteFrame(end - this.frameAt);
      this.frameAt = end;
    }
    this.freeAt = end;
    return end;
  }

  /** Puts a packet (without its start code) on the line; `answer` gets what comes back, without its own. */
  ask(bytes: Uint8Array, answer: (bytes: Uint8Array) => void): void {
    const decoded = decodeRdm(Uint8Array.of(Rdm.SC_RDM, ...bytes));
    if (!decoded.ok) return;
    const heard = this.rig.ask(this.plug, decoded.value, this.now());
    const answered = heard.kind === 'answer' ? heard.packet.data.length : null;
    const end = this.occupy(exchangeMs(decoded.value.data.length, answered));
    if (heard.kind === 'answer')
      setTimeout(() => answer(encodeRdm(heard.packet).subarray(START_CODE)), Math.max(0, end - this.now()));
  }

  /** Searches the line; `found` gets who is there when the search has ended. */
  discover(found: (uids: readonly string[]) => void): void {
    const uids = this.rig.discover(this.plug);
    const end = this.occupy(SEARCH_MS + uids.length * EACH_MS);
    setTimeout(() => found(uids), Math.max(0, end - this.now()));
  }

  /** Intervals of the last frames, ms, rising; they are forgotten with it. */
  takeIntervals(): number[] {
    this.runTo(this.now());
    return this.intervals.splice(0).sort((a, b) => a - b);
  }
}
