/** One adapter while a person has it running: opened, kept at its rate, and taken up again when it was gone. */
import { SLOTS } from '@taxiarch/core/base/address';
import { NOBODY } from '@taxiarch/core/signal/merge';
import { afterLoss, FrameReader, fastestRate, type PlugReport } from '@taxiarch/core/protocol/plug';
import type { SharedLevels } from '../bridge/shared';
import type { LineEvents, LinePort } from './linePort';
import type { PassedFrame, PlugOrder } from './plugMessages';

/** From one try to open to the next, ms. */
const AGAIN_MS = 1000;
/** Over so long the rate is counted, ms. */
const COUNTED_MS = 1000;
/** The first figure is there after so long, ms. */
const FIRST_MS = 250;
const NOTHING_COUNTED = { frames: 0, rate: 0, whole: false };
/** A pause of this length begins a frame on ports that do not tell of breaks, ms. */
const PAUSE_MS = 2;
/** The last stretch before a frame is due is not left to timers, which are coarse, ms. */
const CLOSE_MS = 1.6;
/** A rate below this share of what is planned is said. */
const ENOUGH = 0.97;

/** Frames that are kept for whoever holds both ends against each other: what is at the far end left a while ago. */
const MOST_PASSED = 24;

export interface PlugSurroundings {
  readonly levels: SharedLevels;
  readonly open: (order: PlugOrder, events: LineEvents) => Promise<LinePort>;
  readonly frame: (machineId: string, slots: Uint8Array) => void;
}

export class Plug {
  private line: LinePort | undefined;
  private state: PlugReport['state'] = 'opening';
  private why = '';
  private back = 0;
  private wentAt: number | null = null;
  private frames = 0;
  private counted = { ...NOTHING_COUNTED, at: performance.now() };
  private timer: NodeJS.Timeout | undefined;
  private near: NodeJS.Immediate | undefined;
  private due = 0;
  private ended = false;
  private frameReader = new FrameReader();
  private readonly read = { values: new Uint8Array(SLOTS), owners: new Uint8Array(SLOTS) };
  private last = new Uint8Array(SLOTS);
  private heardAt = -Infinity;
  private silent = false;
  /** What left it or came by it, the last frame at the end */
  readonly passed: PassedFrame[] = [];

  constructor(
    private order: PlugOrder,
    private readonly around: PlugSurroundings,
  ) {
    void this.open();
  }

  get machineId(): string {
    return this.order.machineId;
  }

  /** Goes on by a changed order; false if that needs another port. */
  follow(next: PlugOrder): boolean {
    const { use, place } = this.order;
    if (next.use !== use || JSON.stringify(next.place) !== JSON.stringify(place)) return false;
    this.order = next;
    return true;
  }

  private async open(): Promise<void> {
    const events: LineEvents = {
      came: (bytes) => this.came(bytes),
      gone: (why) => this.gone(why),
    };
    try {
      const line = await this.around.open(this.order, events);
      if (this.ended) return line.close();
      this.line = line;
      this.frameReader = new FrameReader(line.tellsBreaks ? Infinity : PAUSE_MS);
      if (this.wentAt !== null && this.state === 'gone') this.back += 1;
      this.state = 'runs';
      this.why = '';
      this.counted = { ...NOTHING_COUNTED, frames: this.frames, at: performance.now() };
      this.due = performance.now();
      if (this.order.use === 'out') this.wait();
    } catch (error) {
      this.gone((error as Error).message);
    }
  }

  private gone(why: string): void {
    if (this.ended) return;
    this.line?.close();
    this.line = undefined;
    this.why = why;
    if (this.state !== 'gone') this.wentAt = Date.now();
    this.state = 'gone';
    clearTimeout(this.timer);
    clearImmediate(this.near);
    this.timer = setTimeout(() => void this.open(), AGAIN_MS);
  }

  private came(bytes: Uint8Array | undefined): void {
    if (this.order.use !== 'in') return;
    const now = performance.now();
    const frame = bytes === undefined ? this.frameReader.lineBreak(now) : this.frameReader.push(bytes, now);
    if (!frame || frame.startCode !== 0) return;
    this.frames += 1;
    this.keep(frame.slots, frame.slots);
    this.around.frame(this.order.machineId, frame.slots);
  }

  /** The next frame is timed from the one before, not from when that one ran. */
  private wait(): void {
    if (!this.line) return;
    const left = this.due - performance.now();
    if (left > CLOSE_MS) this.timer = setTimeout(() => this.wait(), left - CLOSE_MS);
    else if (left > 0) this.near = setImmediate(() => this.wait());
    else {
      this.send(this.line);
      const every = 1000 / Math.min(this.order.rate, fastestRate(this.order.slots));
      this.due = Math.max(this.due + every, performance.now());
      this.wait();
    }
  }

  private send(line: LinePort): void {
    // The port is still busy with the frame before: this one is left out.
    if (!line.free) return;
    const now = performance.now();
    const levels = this.levels(now);
    if (!levels) {
      // Nothing is to leave yet: its rate is counted from the first frame.
      this.counted = { ...NOTHING_COUNTED, frames: this.frames, at: now };
      return;
    }
    const sent = levels.slice(0, this.order.slots);
    this.keep(this.read.values.slice(), sent);
    line.send(sent);
    this.frames += 1;
  }

  private keep(here: Uint8Array, plug: Uint8Array): void {
    this.passed.push({ here, plug });
    if (this.passed.length > MOST_PASSED) this.passed.shift();
  }

  /** What is to leave; undefined while it waits for the first sender. */
  private levels(now: number): Uint8Array | undefined {
    const { values, owners } = this.read;
    if (this.order.row !== null) this.around.levels.read(this.order.row, values, owners);
    else owners.fill(NOBODY);
    this.silent = owners.every((owner) => owner === NOBODY);
    if (!this.silent) {
      this.heardAt = now;
      this.last.set(values);
      return values;
    }
    // Before anybody was heard there is nothing to hold.
    if (this.heardAt === -Infinity) return this.order.start === 'wait' ? undefined : this.last;
    return afterLoss(this.last, this.order.loss, (now - this.heardAt) / 1000);
  }

  report(): PlugReport {
    const now = performance.now();
    const { order, counted } = this;
    const span = now - counted.at;
    const perSecond = ((this.frames - counted.frames) * 1000) / span;
    if (span >= COUNTED_MS) this.counted = { frames: this.frames, at: now, rate: perSecond, whole: true };
    // The first figure is there soon; it is too coarse to judge by.
    else if (!counted.whole && span >= FIRST_MS) counted.rate = perSecond;
    const { rate, whole } = this.counted;
    const wanted = Math.min(order.rate, Math.floor(fastestRate(order.slots)));
    const slow = order.use === 'out' && this.state === 'runs' && whole && rate < wanted * ENOUGH;
    return {
      machineId: order.machineId,
      use: order.use,
      state: this.state,
      why: slow ? `The port reaches ${rate.toFixed(1)} of ${wanted} frames a second.` : this.why,
      by: order.by,
      since: order.since,
      path: this.line?.path ?? '',
      rate: this.state === 'runs' ? Math.round(rate * 10) / 10 : 0,
      wanted,
      frames: this.frames,
      back: this.back,
      wentAt: this.wentAt,
      silent: order.use === 'out' && this.silent,
    };
  }

  end(): void {
    this.ended = true;
    clearTimeout(this.timer);
    clearImmediate(this.near);
    this.line?.close();
  }
}
