/** A thread that is seen to: one that throws, ends or hangs is said to have failed, and is started again. */
import { Worker, type Transferable } from 'node:worker_threads';
import { newBeat, readBeat } from './beat';

/** A thread that gives no sign for this long hangs. */
export const HANGS_MS = 2000;
const LOOK_MS = 250;
/**
 * A thread is judged by the processor time that this program had meanwhile, not by the clock: on a busy computer silence
 * proves nothing. While it works this share of the patience must have been spent; while it begins, all of it.
 */
const SPENT_SHARE = 0.6;
/** A thread that waits for ever spends nothing: after so many times its patience it hangs all the same. */
const AT_MOST = 5;
/** A look that comes later than this says that this thread itself was held up, and proves nothing of the other. */
const LATE_MS = 1000;
/** Processor time of this program so far, ms. */
const spent = (): number => {
  const { user, system } = process.cpuUsage();
  return (user + system) / 1000;
};

/** Waits before starting again: at once at first, longer for a thread that fails again and again. */
const WAITS_MS = [0, 100, 200, 400];
/** A thread that ran for this long has got over what it failed of. */
const WELL_MS = 30_000;

/** What every supervised thread is given beside its own. */
export interface ThreadData {
  readonly beat: SharedArrayBuffer;
  /** It takes the place of one that failed. */
  readonly again: boolean;
}

/** First messages of a supervised thread: it works, or cannot begin. */
export type ThreadSays = { readonly type: 'ready' } | { readonly type: 'failed'; readonly why: string };

export interface ThreadPlan<From> {
  readonly file: URL;
  /** It hangs if it gives no sign for so many milliseconds; {@link HANGS_MS} for most. */
  readonly patience?: number;
  /** What it is given, made anew for each start, and which of it is handed over */
  data(): { readonly data: object; readonly transfer?: readonly Transferable[] };
  received(message: From): void;
  /** It failed; what waited for it waits in vain. */
  failed(why: string): void;
  /** It works again, so many milliseconds after it failed of `why`. */
  back(after: number, why: string): void;
}

export class Supervised<To, From extends { readonly type: string }> {
  private worker: Worker | undefined;
  private beat = newBeat();
  private seen = { beat: 0, at: 0, spent: 0, lookedAt: 0 };
  private startedAt = 0;
  private failedAt = 0;
  private failures = 0;
  private ready = false;
  private why = '';
  private stopping = false;
  private looking: NodeJS.Timeout | undefined;
  private again: NodeJS.Timeout | undefined;
  private began: { resolve(): void; reject(error: Error): void } | undefined;

  constructor(private readonly plan: ThreadPlan<From>) {}

  /** Whether it works now. */
  get up(): boolean {
    return this.ready;
  }

  /** Starts for the first time; rejects with its reason if it cannot begin. */
  start(): Promise<void> {
    this.looking = setInterval(() => this.look(performance.now()), LOOK_MS);
    return new Promise((resolve, reject) => {
      this.began = { resolve, reject };
      this.run();
    });
  }

  tell(message: To, transfer: readonly Transferable[] = []): void {
    this.worker?.postMessage(message, transfer);
  }

  private run(): void {
    const now = performance.now();
    this.beat = newBeat();
    this.startedAt = now;
    this.seen = { beat: 0, at: now, spent: spent(), lookedAt: now };
    const { data, transfer = [] } = this.plan.data();
    const worker = new Worker(this.plan.file, {
      workerData: { ...data, beat: this.beat, again: !this.began } satisfies ThreadData,
      transferList: [...transfer],
    });
    this.worker = worker;
    let why = 'it ended';
    worker.on('message', (message: From | ThreadSays) => {
      if (worker !== this.worker) return;
      if (message.type === 'ready') this.works();
      else if (message.type === 'failed') this.fell(worker, (message as { why: string }).why);
      else this.plan.received(message as From);
    });
    worker.on('error', (error: Error) => (why = error.message));
    worker.on('exit', () => this.fell(worker, why));
  }

  private works(): void {
    this.ready = true;
    if (this.began) {
      this.began.resolve();
      this.began = undefined;
    } else this.plan.back(Math.round(performance.now() - this.failedAt), this.why);
  }

  private fell(worker: Worker, why: string): void {
    if (worker !== this.worker || this.stopping) return;
    this.worker = undefined;
    void worker.terminate();
    const now = performance.now();
    if (this.ready || this.began) this.failedAt = now;
    if (this.began) {
      clearInterval(this.looking);
      this.began.reject(new Error(why));
      return;
    }
    const wasReady = this.ready;
    this.ready = false;
    this.why = why;
    this.failures = now - this.startedAt > WELL_MS ? 1 : this.failures + 1;
    if (wasReady) this.plan.failed(why);
    this.again = setTimeout(() => this.run(), WAITS_MS[Math.min(this.failures, WAITS_MS.length) - 1]);
  }

  /** Whether it has given a sign lately; a thread that has not begun yet is waited for as long. */
  private look(now: number): void {
    const { worker, seen } = this;
    const late = now - seen.lookedAt > LATE_MS;
    const beat = readBeat(this.beat);
    this.seen =
      beat !== seen.beat || late ? { beat, at: now, spent: spent(), lookedAt: now } : { ...seen, lookedAt: now };
    const patience = this.ready ? (this.plan.patience ?? HANGS_MS) : Math.max(5 * HANGS_MS, this.plan.patience ?? 0);
    const silent = now - this.seen.at;
    const worked = spent() - this.seen.spent > patience * (this.ready ? SPENT_SHARE : 1);
    if (worker && silent > patience && (worked || silent > AT_MOST * patience))
      this.fell(worker, `it gave no sign for ${patience / 1000} s`);
  }

  /** Lets it end by itself after `last`, or ends it when that takes too long. */
  async stop(last?: To, patience = 1000): Promise<void> {
    this.stopping = true;
    this.ready = false;
    clearInterval(this.looking);
    clearTimeout(this.again);
    const { worker } = this;
    if (!worker) return;
    const ended = new Promise((resolve) => worker.once('exit', resolve));
    if (last !== undefined) {
      this.tell(last);
      await Promise.race([ended, new Promise((late) => setTimeout(late, patience).unref())]);
    }
    await worker.terminate();
  }
}
