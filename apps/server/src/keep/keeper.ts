/**
 * Keeps a server going: one that ends or hangs is started again, safe, with the reason for its live strip; and what it
 * was sending is ended for it.
 */
import type { ChildProcess } from 'node:child_process';
import { processLoad, type ProcessLoad } from './processLoad';
import { endStreams, type Sending } from './lastWords';

/** What a server tells whoever keeps it. */
export type FromServer =
  /** Once a second: its first thread turns. */
  | { readonly type: 'beat' }
  /** What it sends now, and to which UDP port */
  | { readonly type: 'sending'; readonly streams: readonly Sending[]; readonly port: number };

/** A server that gives no sign for this long hangs, unless it waited for a processor meanwhile. */
const HANGS_MS = 6000;
const LOOK_MS = 500;
const LATE_MS = 2000;
/** One that ends so often within this time is not started any more. */
const MOST_ENDS = 5;
const ENDS_WITHIN_MS = 60_000;

export interface Kept {
  /** Starts the server; `restarted` is why the one before ended. */
  start(restarted: string | undefined): ChildProcess;
  /** It answers for the first time; what it said until then. */
  ready(said: string): void;
  /** It was started again, and why. */
  again(why: string): void;
  /** It ended and is not started again. */
  ended(code: number, why: string): void;
}

const READY = /Taxiarch is ready: .*\n/;

export class Keeper {
  private child: ChildProcess | undefined;
  private lastBeat = 0;
  private lookedAt = Date.now();
  /** How much processor time it had used by its last beat, and when that was */
  private atBeat: { readonly beat: number; readonly used: number } | undefined;
  private answered = false;
  private everAnswered = false;
  private why = '';
  private sending: Extract<FromServer, { type: 'sending' }> | undefined;
  private ends: number[] = [];
  private stopping = false;
  private readonly looking: NodeJS.Timeout;

  /** `hangs`: milliseconds without a sign after which a server is ended */
  constructor(
    private readonly kept: Kept,
    private readonly hangs = HANGS_MS,
    private readonly loadOf: (pid: number) => ProcessLoad | undefined = processLoad,
  ) {
    this.looking = setInterval(() => this.look(Date.now()), Math.min(LOOK_MS, hangs / 4));
    this.run(undefined);
  }

  private run(restarted: string | undefined): void {
    const child = this.kept.start(restarted);
    this.child = child;
    this.answered = false;
    this.why = '';
    this.sending = undefined;
    this.lastBeat = Date.now();
    let said = '';
    child.stdout?.setEncoding('utf8').on('data', (text: string) => {
      if (this.answered) return;
      said += text;
      if (!READY.test(said)) return;
      this.answered = true;
      // Beginning may take long, and no beat is asked for until it is over.
      this.lastBeat = Date.now();
      if (restarted !== undefined) this.kept.again(restarted);
      else if (!this.everAnswered) this.kept.ready(said);
      this.everAnswered = true;
    });
    child.on('message', (message: FromServer) => {
      this.lastBeat = Date.now();
      if (message.type === 'sending') this.sending = message;
    });
    child.once('exit', (code, signal) => void this.fell(code, signal));
  }

  private look(now: number): void {
    // A look that comes late says that this process was held up, and proves nothing of the other.
    if (now - this.lookedAt > LATE_MS) this.lastBeat = Math.max(this.lastBeat, now - LATE_MS);
    this.lookedAt = now;
    if (!this.answered || this.isStarved() || now - this.lastBeat < this.hangs) return;
    this.why = `it gave no sign for ${this.hangs / 1000} s`;
    this.answered = false;
    this.child?.kill('SIGKILL');
  }

  /** It has had less of the processor since its last beat than a beat may take, and waits for more. */
  private isStarved(): boolean {
    const load = this.child?.pid === undefined ? undefined : this.loadOf(this.child.pid);
    if (!load) return false;
    if (this.atBeat?.beat !== this.lastBeat) this.atBeat = { beat: this.lastBeat, used: load.used };
    return load.waits && load.used - this.atBeat.used < this.hangs / 2;
  }

  private async fell(code: number | null, signal: NodeJS.Signals | null): Promise<void> {
    if (this.stopping || code === 0) return this.end(code ?? 0, '');
    // One that never answered has said why it cannot start.
    if (!this.everAnswered) return this.end(code ?? 1, '');
    const why = this.why || (signal ? `it was ended by ${signal}` : `it ended with code ${code}`);
    const { sending } = this;
    if (sending && sending.streams.length > 0) await endStreams(sending.streams, sending.port);
    const now = Date.now();
    this.ends = [...this.ends.filter((at) => now - at < ENDS_WITHIN_MS), now];
    if (this.ends.length > MOST_ENDS)
      return this.end(1, `The server ended ${this.ends.length} times within a minute; the last time ${why}.`);
    if (!this.stopping) this.run(why);
  }

  private end(code: number, why: string): void {
    clearInterval(this.looking);
    this.kept.ended(code, why);
  }

  /** The process that runs now, to be stopped by whoever stops everything. */
  stop(): ChildProcess | undefined {
    this.stopping = true;
    clearInterval(this.looking);
    return this.child;
  }
}
