/** What leaves one port of a node: its sources merged, and what happens when they fall silent. */
import { SLOTS, type Protocol } from '@taxiarch/core/address';
import { ArtNet } from '@taxiarch/core/artnet';
import { NOBODY, mergeSlots, type Contender } from '@taxiarch/core/merge';
import { Sacn } from '@taxiarch/core/sacn';
import type { PortSettings } from './settings';

export interface PortSource extends Contender {
  readonly protocol: Protocol;
  readonly id: string;
  readonly address: string;
  name: string;
  priority: number;
  count: number;
  slotPriority: Uint8Array | null;
  changedAt: Float64Array;
  lastSeen: number;
  sequence: number;
}

/** `waiting`: nothing has come yet; `lost`: everything has gone. */
export type PortState = 'waiting' | 'fed' | 'lost';

/** Times are milliseconds of one clock, given by the caller. */
export class OutputPort {
  readonly sources: PortSource[] = [];
  private readonly merged = new Uint8Array(SLOTS);
  private readonly owners = new Uint8Array(SLOTS).fill(NOBODY);
  private fed = false;
  private lostAt = -Infinity;

  /** `most`: sources that the model merges. */
  constructor(
    private settings: PortSettings,
    private readonly most: number,
  ) {}

  configure(settings: PortSettings): void {
    const moved = settings.protocol !== this.settings.protocol || settings.low !== this.settings.low;
    this.settings = settings;
    if (moved || settings.use !== 'out') this.sources.length = 0;
    this.remerge();
  }

  state(now: number): PortState {
    this.forgetSilent(now);
    return this.sources.length > 0 ? 'fed' : this.fed ? 'lost' : 'waiting';
  }

  /** The source of an id; undefined if the port takes no more of them. */
  source(protocol: Protocol, id: string, address: string, now: number): PortSource | undefined {
    this.forgetSilent(now);
    const known = this.sources.find((source) => source.id === id);
    if (known) return known;
    if (this.sources.length >= (this.settings.merge === 'none' ? 1 : this.most)) return undefined;
    const marks = new Set(this.sources.map(({ mark }) => mark));
    let mark = 0;
    while (marks.has(mark)) mark += 1;
    const made: PortSource = {
      protocol,
      id,
      address,
      mark,
      name: '',
      priority: Sacn.DEFAULT_PRIORITY,
      values: new Uint8Array(SLOTS),
      count: 0,
      slotPriority: null,
      changedAt: new Float64Array(SLOTS),
      lastSeen: now,
      sequence: -1,
    };
    this.sources.push(made);
    this.fed = true;
    return made;
  }

  setLevels(source: PortSource, slots: Uint8Array, now: number): void {
    for (let i = 0; i < SLOTS; i += 1) {
      const level = slots[i] ?? 0;
      if (level !== source.values[i]) source.changedAt[i] = now;
      source.values[i] = level;
    }
    source.count = slots.length;
    source.lastSeen = now;
    this.remerge();
  }

  drop(source: PortSource, now: number): void {
    this.sources.splice(this.sources.indexOf(source), 1);
    if (this.sources.length === 0) this.lostAt = now;
    this.remerge();
  }

  forgetSilent(now: number): void {
    for (const source of [...this.sources]) {
      const timeout = source.protocol === 'sacn' ? Sacn.E131_NETWORK_DATA_LOSS_TIMEOUT_MS : ArtNet.MERGE_TIMEOUT_MS;
      if (now - source.lastSeen > timeout) this.drop(source, now);
    }
  }

  remerge(): void {
    const mode = this.settings.merge === 'ltp' ? 'ltp' : 'htp';
    if (this.sources.length > 0) mergeSlots(this.sources, mode, this.merged, this.owners);
  }

  cancelMerge(): void {
    this.sources.splice(0, Math.max(0, this.sources.length - 1));
    this.remerge();
  }

  clear(): void {
    this.merged.fill(0);
  }

  /** The levels that leave now; null while the port is silent. */
  output(now: number): Uint8Array | null {
    const { use, fixed, start, look, loss } = this.settings;
    if (use === 'off' || use === 'in') return null;
    if (use === 'fixed') return new Uint8Array(SLOTS).fill(fixed);
    const stored = () => Uint8Array.from({ length: SLOTS }, (_, i) => look[i] ?? 0);
    const state = this.state(now);
    if (state === 'fed') return this.merged;
    if (state === 'waiting') return start === 'wait' ? null : start === 'black' ? new Uint8Array(SLOTS) : stored();
    const since = (now - this.lostAt) / 1000 - loss.after;
    if (loss.kind === 'hold' || since < 0) return this.merged;
    switch (loss.kind) {
      case 'hold-black':
        return new Uint8Array(SLOTS);
      case 'full':
        return new Uint8Array(SLOTS).fill(255);
      case 'look':
        return stored();
      case 'fade': {
        const left = loss.over === 0 ? 0 : Math.max(0, 1 - since / loss.over);
        return this.merged.map((level) => Math.round(level * left));
      }
    }
  }
}
