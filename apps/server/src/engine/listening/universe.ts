/** A universe on the wire: its streams, and what they come to when merged. */
import { fromWireKey, SLOTS } from '@taxiarch/core/base/address';
import { type MergeMode, Merger, MOST_CONTENDERS, priorityAt, type SlotContender } from '@taxiarch/core/signal/merge';
import type { Incoming } from '@taxiarch/core/signal/route';
import type { SharedLevels } from '../../bridge/shared';
import type { StreamReport } from '@taxiarch/core/signal/stream';
import { Stream, type StreamOrigin } from './stream';

/** A source leaves an Art-Net merge after this long (Art-Net 4, merge). */
const ART_NET_LOSS_MS = 10_000;
/** A stream that stopped is still listed for this long. */
const REMEMBERED_MS = 300_000;

/** Whether a stream has a say in levels: what sends nothing but other start codes has none. */
const contends = ({ account, hasLevels, levelsAt }: Stream, now: number, timeout: number): boolean =>
  hasLevels && !account.preview && !account.lost(now, timeout) && now - levelsAt <= timeout;

export class LiveUniverse {
  readonly streams: Stream[] = [];
  /** Something came since the last merge. */
  dirty = false;
  private mode: MergeMode = 'htp';
  private remembersChanges = false;
  private taken: Uint8Array | undefined;
  /** Made when somebody first looks here. */
  private merger: Merger | undefined;
  /** What all but what people have taken here come to; made when it is first asked for. */
  private others: Merger | undefined;
  /** What all streams come to for a route; made when one first asks. */
  private whole: Merger | undefined;

  constructor(
    readonly key: number,
    readonly row: number,
    private readonly shared: SharedLevels,
  ) {
    shared.clear(row);
  }

  get wire() {
    return fromWireKey(this.key);
  }

  setMode(mode: MergeMode): void {
    if (mode === this.mode) return;
    this.mode = mode;
    this.dirty = true;
    if (mode === 'ltp') this.rememberChanges();
  }

  /** Keeps, for every stream, when each slot changed. */
  rememberChanges(): void {
    this.remembersChanges = true;
    for (const stream of this.streams) stream.keepChangeTimes();
  }

  /** Slots that people have taken here, others 0 (512); heard back by Art-Net, which itself cannot say so. */
  setTaken(mask: Uint8Array): void {
    this.taken = mask;
    for (const stream of this.streams) this.markOwn(stream);
    this.dirty = true;
  }

  private markOwn(stream: Stream): void {
    const { protocol, sent } = stream.origin;
    if (this.taken && protocol === 'artnet' && sent === 'taken') stream.controlOnly(this.taken);
  }

  /** A stream new on this universe; undefined if more senders came than can be told apart. */
  add(origin: StreamOrigin, now: number): Stream | undefined {
    const used = new Set(this.streams.map((stream) => stream.mark));
    let mark = 0;
    while (used.has(mark)) mark += 1;
    if (mark >= MOST_CONTENDERS) return undefined;
    const stream = new Stream(mark, origin, now);
    if (this.remembersChanges) stream.keepChangeTimes();
    this.markOwn(stream);
    this.streams.push(stream);
    this.dirty = true;
    return stream;
  }

  /** Looks for streams that fell silent, lost their per-slot priority, or can be forgotten. */
  sweep(now: number, timeout: number): void {
    for (let i = this.streams.length - 1; i >= 0; i -= 1) {
      const stream = this.streams[i]!;
      if (stream.expireSlotPriority(now)) this.dirty = true;
      if (!stream.account.lost(now, timeout)) continue;
      if (now - stream.account.lastSeen > REMEMBERED_MS) this.streams.splice(i, 1);
      this.dirty = true;
    }
  }

  private contenders(now: number, timeout: number): Stream[] {
    return this.streams.filter((stream) => contends(stream, now, timeout));
  }

  /** How many streams are heard, for Art-Net's own loss time. */
  heard(now: number): number {
    let heard = 0;
    for (const { account, levelsAt } of this.streams)
      if (!account.preview && !account.terminated && now - levelsAt <= ART_NET_LOSS_MS) heard += 1;
    return heard;
  }

  /** Whether anybody sends levels here now. */
  hears(now: number, timeout: number): boolean {
    return this.streams.some(({ account, levelsAt }) => !account.terminated && now - levelsAt <= timeout);
  }

  /** Every stream as it is; senders that use one component id at the same time are marked as such. */
  report(now: number, timeout: number, epoch: number): StreamReport[] {
    const reports = this.streams.map((stream) => stream.report(now, timeout, epoch));
    const twins = (one: StreamReport) =>
      reports.some((other) => other !== one && !other.lost && other.cid === one.cid && other.cid !== '');
    return reports.map((one) => (!one.lost && twins(one) ? { ...one, twin: true } : one));
  }

  merge(now: number, timeout: number): void {
    this.dirty = false;
    this.merger ??= new Merger();
    this.merger.merge(this.contenders(now, timeout), this.mode);
    this.shared.write(this.row, this.merger.values, this.merger.owners);
  }

  /** What all but the slots taken here come to: 512 levels, valid until the next call. */
  levelsOfOthers(now: number, timeout: number): Uint8Array {
    this.others ??= new Merger();
    this.others.merge(
      this.contenders(now, timeout).filter(({ origin }) => origin.sent !== 'taken'),
      this.mode,
    );
    return this.others.values;
  }

  /**
   * What comes in for a route: one sender's levels (by name or address), or for an empty `sender`
   * what all streams come to. Undefined while nothing is heard.
   */
  incoming(sender: string, now: number, timeout: number): Incoming | undefined {
    if (sender !== '')
      return this.streams.find(
        (stream) => (stream.name === sender || stream.address === sender) && contends(stream, now, timeout),
      );
    const heard = this.contenders(now, timeout);
    // One stream alone needs no merge, unless priorities for its slots let some go.
    if (heard.length === 1 && heard[0]!.slotPriority === null) return heard[0];
    if (heard.length === 0) return undefined;
    this.whole ??= new Merger();
    this.whole.merge(heard, this.mode);
    return { values: this.whole.values, count: SLOTS, changedAt: this.changesOf(this.whole.owners, heard) };
  }

  /** When each slot's owner last changed it; null if that is not remembered. */
  private changesOf(owners: Uint8Array, heard: readonly Stream[]): Float64Array | null {
    if (!this.remembersChanges) return null;
    const byMark = new Map(heard.map((stream) => [stream.mark, stream.changedAt]));
    return Float64Array.from(owners, (mark, slot) => byMark.get(mark)?.[slot] ?? 0);
  }

  /** Lets levels in that waited for their synchronisation packet; returns whether there were any. */
  release(which: (stream: Stream) => boolean, now: number): boolean {
    let released = false;
    for (const stream of this.streams) if (which(stream) && stream.release(now)) released = true;
    if (released) this.dirty = true;
    return released;
  }

  /** What each live stream says about one slot (0–511), highest priority first. */
  contendersAt(slot: number, now: number, timeout: number): SlotContender[] {
    return this.contenders(now, timeout)
      .map((stream) => {
        const changed = stream.changedAt?.[slot] ?? 0;
        return {
          mark: stream.mark,
          value: stream.values[slot]!,
          priority: priorityAt(stream, slot),
          age: changed === 0 ? null : now - changed,
        };
      })
      .sort((a, b) => b.priority - a.priority || b.value - a.value);
  }
}
