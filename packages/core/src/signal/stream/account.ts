/** The account of one sender on one universe: what came, how steadily, and when it fell silent. */
import type { Protocol } from '../../base/address';

const BUCKET_MS = 100;
const BUCKETS = 100;
/** Packets this many places behind the last one are late; further behind, the sender began anew (E1.31, 6.7.2). */
const LATE_WINDOW = 20;
/** Longer pauses are a sender's keep-alive while nothing changes, and say nothing of its clock. */
const PAUSE_MS = 250;
const SMOOTHING = 1 / 16;

/**
 * How far `sequence` is ahead of `last`, by the protocol's own counting:
 * sACN signed 8-bit (E1.31-2018, 6.7.2); Art-Net round the circle 1–255, which skips 0.
 */
export function sequenceStep(protocol: Protocol, last: number, sequence: number): number {
  if (protocol === 'sacn') return ((sequence - last) << 24) >> 24;
  const around = (((sequence - last) % 255) + 255) % 255;
  return around > 127 ? around - 255 : around;
}

/** Why a receiver discards a packet: the number of the one before, or one behind it (E1.31-2018, 6.7.2). */
export type Discarded = 'repeated' | 'late';

/** Counts since the stream was first heard. */
export interface StreamCounts {
  /** Packets taken in */
  packets: number;
  /** Packets that never came, by the sequence numbers */
  missing: number;
  /** Packets with the number of the one before */
  repeats: number;
  /** Packets discarded for coming late */
  late: number;
}

export class StreamAccount implements StreamCounts {
  packets = 0;
  missing = 0;
  repeats = 0;
  late = 0;
  /** Milliseconds, on whatever clock the caller uses throughout */
  readonly firstSeen: number;
  /** When a packet was accepted last: one that is discarded keeps no stream alive */
  lastSeen: number;
  /** Why a packet was discarded last; empty if none was */
  discarded: Discarded | '' = '';
  /** Mean deviation of the intervals between packets of levels, in milliseconds */
  jitter = 0;
  terminated = false;
  preview = false;
  private sequence = -1;
  private lastLevels = -1;
  private interval = 0;
  private readonly rates: Uint16Array;
  private readonly losses: Uint16Array;
  private readonly discards: Uint16Array;
  private readonly gaps: Uint16Array;
  private bucket: number;

  constructor(
    readonly protocol: Protocol,
    now: number,
  ) {
    this.firstSeen = now;
    this.lastSeen = now;
    this.bucket = Math.floor(now / BUCKET_MS);
    // One piece of memory for all: thousands of streams may begin at once.
    const buckets = new Uint16Array(4 * BUCKETS);
    const part = (index: number) => buckets.subarray(index * BUCKETS, (index + 1) * BUCKETS);
    this.rates = part(0);
    this.losses = part(1);
    this.discards = part(2);
    this.gaps = part(3);
  }

  /**
   * Notes one packet; returns whether its content may be used.
   * `levels` is false for packets that carry no levels (per-slot priority), which share the
   * numbering but are not part of the rate.
   */
  note(now: number, sequence: number, levels: boolean): boolean {
    this.roll(now);
    const wasTerminated = this.terminated;
    const counted = this.protocol === 'sacn' || sequence !== 0;
    if (counted && this.sequence >= 0 && !wasTerminated) {
      const step = sequenceStep(this.protocol, this.sequence, sequence);
      if (step === 0) {
        this.repeats += 1;
        if (this.protocol === 'sacn') return this.discard('repeated');
      } else if (step < 0 && step > -LATE_WINDOW) {
        this.late += 1;
        return this.discard('late');
      } else if (step > 1) {
        this.missing += step - 1;
        this.losses[this.bucket % BUCKETS]! += step - 1;
      }
    }
    this.lastSeen = now;
    this.terminated = false;
    if (counted) this.sequence = sequence;
    this.packets += 1;
    if (levels) this.noteLevels(now);
    return true;
  }

  private discard(why: Discarded): false {
    this.discarded = why;
    this.discards[this.bucket % BUCKETS]! += 1;
    return false;
  }

  /** How far a packet would be ahead of the last, by its sequence; 1 if there was none. */
  stepTo(sequence: number): number {
    return this.sequence < 0 ? 1 : sequenceStep(this.protocol, this.sequence, sequence);
  }

  /** The next packet begins the numbering anew. */
  forgetSequence(): void {
    this.sequence = -1;
  }

  /** Something came that has no place in the numbering. */
  seen(now: number): void {
    this.lastSeen = now;
    this.terminated = false;
  }

  private noteLevels(now: number): void {
    this.rates[this.bucket % BUCKETS]! += 1;
    const interval = now - this.lastLevels;
    if (this.lastLevels >= 0 && interval < PAUSE_MS) {
      if (this.interval === 0) this.interval = interval;
      this.interval += (interval - this.interval) * SMOOTHING;
      this.jitter += (Math.abs(interval - this.interval) - this.jitter) * SMOOTHING;
    } else if (this.lastLevels >= 0) this.gaps[this.bucket % BUCKETS]! += 1;
    this.lastLevels = now;
  }

  /** Empties the buckets of time that has passed since the last call. */
  private roll(now: number): void {
    const bucket = Math.floor(now / BUCKET_MS);
    const steps = Math.min(bucket - this.bucket, BUCKETS);
    for (let i = 1; i <= steps; i += 1) {
      this.rates[(this.bucket + i) % BUCKETS] = 0;
      this.losses[(this.bucket + i) % BUCKETS] = 0;
      this.discards[(this.bucket + i) % BUCKETS] = 0;
      this.gaps[(this.bucket + i) % BUCKETS] = 0;
    }
    if (bucket > this.bucket) this.bucket = bucket;
  }

  private sum(counts: Uint16Array, now: number, buckets: number): number {
    this.roll(now);
    let total = 0;
    // The bucket still filling is left out, so that a rate does not dip as each one begins.
    for (let i = 1; i <= buckets; i += 1) total += counts[(this.bucket - i + BUCKETS) % BUCKETS]!;
    return total;
  }

  /** Packets of levels a second, over the last second. */
  rate1(now: number): number {
    return this.sum(this.rates, now, 10);
  }

  /** Packets of levels a second, over the last ten seconds or since the first packet. */
  rate10(now: number): number {
    const span = Math.min(BUCKETS - 1, Math.max(1, this.bucketsSince(now)));
    return this.sum(this.rates, now, span) / (span / 10);
  }

  /** Packets missed in the last ten seconds. */
  missing10(now: number): number {
    return this.sum(this.losses, now, BUCKETS - 1) + this.losses[this.bucket % BUCKETS]!;
  }

  /** Packets a second that receivers discard, over the last second. */
  discarded1(now: number): number {
    return this.sum(this.discards, now, 10);
  }

  /** Pauses of a quarter of a second and more between packets of levels, in the last ten seconds. */
  pauses10(now: number): number {
    return this.sum(this.gaps, now, BUCKETS - 1) + this.gaps[this.bucket % BUCKETS]!;
  }

  private bucketsSince(now: number): number {
    return Math.floor(now / BUCKET_MS) - Math.floor(this.firstSeen / BUCKET_MS);
  }

  /** A sender said that it stops (E1.31 stream terminated). */
  terminate(now: number): void {
    this.lastSeen = now;
    this.terminated = true;
  }

  /** Silent for longer than `timeout` milliseconds, or terminated. */
  lost(now: number, timeout: number): boolean {
    return this.terminated || now - this.lastSeen > timeout;
  }
}
