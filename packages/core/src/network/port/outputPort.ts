/**
 * One output port of a node: which sources have a say, how they are merged, and what leaves it when they fall silent
 * and at the start. Stand-in nodes run it, and forecasts of real ones. Times are milliseconds of one clock, given by
 * the caller.
 */
import { SLOTS, type Protocol } from '../../base/address';
import { ArtNet } from '../../protocol/artnet';
import { NOBODY, NOT_CONTROLLED, mergeSlots, priorityAt, type Contender } from '../../signal/merge';
import type { LossOfSignal, PortMerge, PortUse, StartUp } from '../../show/records';
import { Sacn } from '../../protocol/sacn';
import { artnetSync, sacnSync, sequenceStep } from '../../signal/stream';

/** What a port is set to, as far as it changes what leaves it. */
export interface PortRules {
  readonly use: PortUse;
  readonly protocol: Protocol;
  /** sACN universe or Port-Address; where it changes, the port begins anew */
  readonly wire: number;
  readonly merge: PortMerge;
  readonly loss: LossOfSignal;
  readonly start: StartUp;
  /** Level of a fixed output */
  readonly fixed: number;
  /** Look that was stored, for loss of signal and start-up */
  readonly look: readonly number[];
}

/** What its model can do. */
export interface PortModel {
  /** sACN sources that it merges */
  readonly sources: number;
  /** Whether a source of higher priority gets in though all places are taken; true for most. */
  readonly priorityFirst?: boolean;
}

export interface SacnPacket {
  /** CID as text */
  readonly id: string;
  readonly address: string;
  readonly name: string;
  readonly priority: number;
  readonly sequence: number;
  readonly startCode: number;
  readonly slots: Uint8Array;
  readonly terminated: boolean;
  readonly preview: boolean;
  readonly syncAddress: number;
  readonly forceSync: boolean;
}

export interface ArtNetPacket {
  readonly address: string;
  readonly physical: number;
  readonly slots: Uint8Array;
}

export interface PortSource extends Contender {
  readonly protocol: Protocol;
  readonly id: string;
  address: string;
  name: string;
  priority: number;
  count: number;
  slotPriority: Uint8Array | null;
  changedAt: Float64Array;
  lastSeen: number;
  sequence: number;
  syncAddress: number;
  /** Levels that wait for their synchronisation packet */
  held: Uint8Array | null;
  /** It has a place in the merge. */
  taken: boolean;
}

/** `waiting`: nothing has come yet; `lost`: everything has gone. */
export type PortState = 'waiting' | 'fed' | 'lost';

/** Art-Net merges two sources, whatever the box (Art-Net 4, "Data merging"). */
const MOST_ARTNET = 2;
/** Sources told apart at all */
const MOST_HEARD = 64;
/** Signal that has not come for so long does not come now, ms: the time of sACN (E1.31-2018, 6.7.1), for both. */
const PASSES_MS = Sacn.E131_NETWORK_DATA_LOSS_TIMEOUT_MS;
/** Packets so far behind are late; further behind, the sender began anew (E1.31-2018, 6.7.2). */
const LATE_WINDOW = 20;

export class OutputPort {
  private heard: PortSource[] = [];
  private readonly merged = new Uint8Array(SLOTS);
  private readonly owners = new Uint8Array(SLOTS).fill(NOBODY);
  private readonly syncs = new Map<number, number>();
  private readonly artSyncs = new Map<string, number>();
  private fed = false;
  /** Levels came since the last merge, which is made when somebody asks what leaves. */
  private stale = false;
  private lostAt = -Infinity;
  /** A merge is to end with the next packet, whose sender alone is kept. */
  private cancelling = false;
  private only: string | undefined;

  constructor(
    private rules: PortRules,
    private readonly model: PortModel,
  ) {}

  configure(rules: PortRules): void {
    const moved = rules.protocol !== this.rules.protocol || rules.wire !== this.rules.wire;
    this.rules = rules;
    if (moved || rules.use !== 'out') this.heard = [];
    this.admit();
  }

  /** Sources that have a place in the merge */
  get sources(): readonly PortSource[] {
    return this.heard.filter(({ taken }) => taken);
  }

  /** Sources that are heard and have no place */
  get refused(): readonly PortSource[] {
    return this.heard.filter(({ taken }) => !taken);
  }

  /** Who controls a slot (0–511), as of the last {@link output}; undefined for nobody. */
  ownerAt(slot: number): PortSource | undefined {
    const mark = this.owners[slot];
    return this.sources.find((source) => source.mark === mark);
  }

  /** Sources at the highest priority of a slot (0–511): what they send there may leave. */
  having(slot: number): readonly PortSource[] {
    const here = this.sources.map((source) => ({ source, priority: priorityAt(source, slot) }));
    const top = Math.max(...here.map(({ priority }) => priority));
    return here.flatMap(({ source, priority }) => (priority === top && priority !== NOT_CONTROLLED ? [source] : []));
  }

  /** Whether two sources or more really have a say: at the highest priority of at least one slot. */
  get merging(): boolean {
    const { sources } = this;
    if (sources.length < 2) return false;
    const top = Math.max(...sources.map(({ priority }) => priority));
    if (sources.every(({ slotPriority }) => slotPriority === null))
      return sources.filter(({ priority }) => priority === top).length > 1;
    for (let slot = 0; slot < SLOTS; slot += 1) {
      const here = sources.map((source) => prioritiesOf(source, slot));
      const highest = Math.max(...here);
      if (highest > 0 && here.filter((one) => one === highest).length > 1) return true;
    }
    return false;
  }

  state(now: number): PortState {
    this.forgetSilent(now);
    return this.sources.length > 0 ? 'fed' : this.fed ? 'lost' : 'waiting';
  }

  /** Whether signal comes in now, which is what a node's page says; what leaves may be held much longer. */
  passes(now: number): boolean {
    return this.state(now) === 'fed' && this.sources.some(({ lastSeen }) => now - lastSeen <= PASSES_MS);
  }

  sacn(packet: SacnPacket, now: number): void {
    if (packet.preview) return;
    const source = this.source('sacn', packet.id, packet.address, now);
    if (!source) return;
    const step = sequenceStep('sacn', source.sequence, packet.sequence);
    if (source.sequence >= 0 && step <= 0 && step > -LATE_WINDOW) return;
    const { address, name, priority, syncAddress, sequence } = packet;
    const asked = highestOf(source);
    Object.assign(source, { address, name, priority, syncAddress, sequence, lastSeen: now });
    if (highestOf(source) !== asked) this.admit();
    if (packet.terminated) return this.drop(source, now);
    if (packet.startCode === Sacn.START_CODE_SLOT_PRIORITY) {
      source.slotPriority ??= new Uint8Array(SLOTS);
      source.slotPriority.fill(0).set(packet.slots);
      return this.admit();
    }
    if (packet.startCode !== Sacn.START_CODE_NULL) return;
    const act = sacnSync(syncAddress, packet.forceSync, this.syncs.get(syncAddress) ?? -Infinity, now);
    this.levels(source, packet.slots, act === 'hold', now);
  }

  /** A synchronisation packet of an sACN universe (E1.31-2018, 11.1) */
  sacnSync(universe: number, now: number): void {
    this.syncs.set(universe, now);
    this.release((source) => source.protocol === 'sacn' && source.syncAddress === universe, now);
  }

  artnet({ address, physical, slots }: ArtNetPacket, now: number): void {
    const source = this.source('artnet', `${address} ${physical}`, address, now);
    if (!source) return;
    source.lastSeen = now;
    const synced = this.artSyncs.get(address);
    const act = synced === undefined ? 'act' : artnetSync(this.sources.length, synced, now);
    this.levels(source, slots, act === 'hold', now);
  }

  /** An ArtSync of this sender */
  artSync(address: string, now: number): void {
    this.artSyncs.set(address, now);
    this.release((source) => source.protocol === 'artnet' && source.address === address, now);
  }

  private release(which: (source: PortSource) => boolean, now: number): void {
    for (const source of this.heard) {
      if (!source.held || !which(source)) continue;
      this.setLevels(source, source.held, now);
      source.held = null;
    }
  }

  private levels(source: PortSource, slots: Uint8Array, hold: boolean, now: number): void {
    if (this.cancelling && source.taken) {
      this.cancelling = false;
      this.only = this.sources.length > 1 ? source.id : undefined;
      this.admit();
    }
    if (hold) source.held = slots.slice();
    else this.setLevels(source, slots, now);
  }

  private source(protocol: Protocol, id: string, address: string, now: number): PortSource | undefined {
    if (this.rules.use !== 'out' || this.rules.protocol !== protocol) return undefined;
    this.forgetSilent(now);
    const known = this.heard.find((source) => source.id === id);
    if (known) return known;
    if (this.heard.length >= MOST_HEARD) return undefined;
    const marks = new Set(this.heard.map(({ mark }) => mark));
    let mark = 0;
    while (marks.has(mark)) mark += 1;
    const made: PortSource = {
      protocol,
      id,
      address,
      mark,
      name: '',
      priority: protocol === 'sacn' ? 0 : Sacn.DEFAULT_PRIORITY,
      values: new Uint8Array(SLOTS),
      count: 0,
      slotPriority: null,
      changedAt: new Float64Array(SLOTS),
      lastSeen: now,
      sequence: -1,
      syncAddress: 0,
      held: null,
      taken: false,
    };
    this.heard.push(made);
    return made;
  }

  private setLevels(source: PortSource, slots: Uint8Array, now: number): void {
    const { values, changedAt } = source;
    // Only a merge by the latest change needs to know when each slot changed.
    if (this.rules.merge === 'ltp')
      for (let i = 0; i < SLOTS; i += 1) if ((slots[i] ?? 0) !== values[i]) changedAt[i] = now;
    values.set(slots);
    values.fill(0, slots.length);
    const first = source.count === 0;
    source.count = slots.length;
    // Who has a place changes with who is there, not with their levels.
    if (first || !source.taken) this.admit();
    this.stale ||= source.taken;
    this.fed ||= source.taken;
  }

  private drop(source: PortSource, now: number): void {
    // What it sent last is what is held when nobody else is left.
    this.settle();
    this.heard.splice(this.heard.indexOf(source), 1);
    if (source.id === this.only) this.only = undefined;
    this.admit();
    if (source.taken && this.sources.length === 0) this.lostAt = now;
  }

  private forgetSilent(now: number): void {
    for (const source of [...this.heard]) {
      const timeout = source.protocol === 'sacn' ? Sacn.E131_NETWORK_DATA_LOSS_TIMEOUT_MS : ArtNet.MERGE_TIMEOUT_MS;
      if (now - source.lastSeen > timeout) this.drop(source, now);
    }
    // Whoever was shut out by the end of a merge may come back when all of them have been silent.
    if (this.only !== undefined && this.heard.every(({ id }) => id === this.only)) this.only = undefined;
  }

  /** Gives the places: sACN to the highest priorities, where the model can; among equals to who came first. */
  private admit(): void {
    const { merge } = this.rules;
    const most = merge === 'none' ? 1 : this.rules.protocol === 'artnet' ? MOST_ARTNET : this.model.sources;
    const asking = this.heard.filter(
      ({ id, count, held }) => (this.only === undefined || id === this.only) && (count > 0 || held !== null),
    );
    const inOrder =
      this.rules.protocol === 'sacn' && (this.model.priorityFirst ?? true)
        ? [...asking].sort((a, b) => highestOf(b) - highestOf(a) || Number(b.taken) - Number(a.taken))
        : [...asking].sort((a, b) => Number(b.taken) - Number(a.taken));
    const taken = new Set(inOrder.slice(0, most));
    for (const source of this.heard) source.taken = taken.has(source);
    this.stale = true;
  }

  private settle(): void {
    if (!this.stale) return;
    this.stale = false;
    const { sources } = this;
    const mode = this.rules.merge === 'ltp' ? 'ltp' : 'htp';
    if (sources.length > 0) mergeSlots(sources, mode, this.merged, this.owners);
  }

  /** The next packet ends a merge: its sender alone is kept (Art-Net 4, AcCancelMerge). */
  cancelMerge(): void {
    this.cancelling = this.sources.length > 1;
  }

  /** All levels are nought until others come (Art-Net 4, AcClearOp). */
  clear(): void {
    for (const source of this.heard) source.values.fill(0);
    this.merged.fill(0);
    this.stale = false;
  }

  /** The levels that leave now; null while the port is silent. */
  output(now: number): Uint8Array | null {
    const { use, fixed, start, look, loss } = this.rules;
    if (use === 'off' || use === 'in') return null;
    if (use === 'fixed') return new Uint8Array(SLOTS).fill(fixed);
    const stored = () => Uint8Array.from({ length: SLOTS }, (_, i) => look[i] ?? 0);
    const state = this.state(now);
    this.settle();
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

/** The priority with which a source asks for a place: its highest for any slot. */
const highestOf = ({ priority, slotPriority }: PortSource): number =>
  slotPriority === null ? priority : Math.max(...slotPriority);

const prioritiesOf = ({ priority, slotPriority, count }: PortSource, slot: number): number =>
  slot >= count ? 0 : slotPriority === null ? priority + 1 : slotPriority[slot]! === 0 ? 0 : slotPriority[slot]! + 1;
