/** A universe on the wire: its streams, and what they come to when merged. */
import { SLOTS, fromWireKey } from '@taxiarch/core/address';
import { MOST_CONTENDERS, NOBODY, mergeSlots, priorityAt, type Contender, type MergeMode } from '@taxiarch/core/merge';
import type { SlotContender } from '@taxiarch/core/contract';
import type { SharedLevels } from './shared';
import { Stream, type StreamOrigin } from './stream';

/** A stream that stopped is still listed for this long. */
const REMEMBERED_MS = 300_000;

export class LiveUniverse {
  readonly streams: Stream[] = [];
  /** Something came since the last merge. */
  dirty = false;
  private mode: MergeMode = 'htp';
  private remembersChanges = false;
  private readonly values = new Uint8Array(SLOTS);
  private readonly owners = new Uint8Array(SLOTS).fill(NOBODY);
  /** Levels and owners without this Taxiarch; made when they are first asked for. */
  private others: { readonly values: Uint8Array; readonly owners: Uint8Array } | undefined;

  constructor(
    readonly key: number,
    readonly row: number,
    private readonly shared: SharedLevels,
  ) {
    shared.write(row, this.values, this.owners);
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

  /** A stream new on this universe; undefined if more senders came than can be told apart. */
  add(origin: StreamOrigin, now: number): Stream | undefined {
    const used = new Set(this.streams.map((stream) => stream.mark));
    let mark = 0;
    while (used.has(mark)) mark += 1;
    if (mark >= MOST_CONTENDERS) return undefined;
    const stream = new Stream(mark, origin, now);
    if (this.remembersChanges) stream.keepChangeTimes();
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
    return this.streams.filter(({ account }) => !account.preview && !account.lost(now, timeout));
  }

  merge(now: number, timeout: number): void {
    this.dirty = false;
    mergeSlots(this.contenders(now, timeout), this.mode, this.values, this.owners);
    this.shared.write(this.row, this.values, this.owners);
  }

  /** What all but this Taxiarch come to: 512 levels, valid until the next call. */
  levelsOfOthers(now: number, timeout: number): Uint8Array {
    const others: Contender[] = this.contenders(now, timeout).filter((stream) => !stream.origin.own);
    this.others ??= { values: new Uint8Array(SLOTS), owners: new Uint8Array(SLOTS).fill(NOBODY) };
    mergeSlots(others, this.mode, this.others.values, this.others.owners);
    return this.others.values;
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
