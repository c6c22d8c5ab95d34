/** One sender on one universe as the engine holds it: its account, and its last levels. */
import { type Protocol, SLOTS } from '@taxiarch/core/address';
import { StreamAccount, type StreamReport } from '@taxiarch/core/stream';
import type { Contender } from '@taxiarch/core/merge';
import { formatCid } from '@taxiarch/core/sacn';

/** A source that stops sending per-slot priority is back to its packet priority after this long. */
const SLOT_PRIORITY_TIMEOUT_MS = 2500;

/** Whether a stream comes from elsewhere, or from here: slots that people took, or a route. */
export type SentBy = 'others' | 'taken' | 'route';

export interface StreamOrigin {
  readonly protocol: Protocol;
  readonly address: string;
  /** 16 bytes; empty for Art-Net */
  readonly cid: Uint8Array;
  readonly sent: SentBy;
}

export class Stream implements Contender {
  readonly account: StreamAccount;
  name = '';
  address: string;
  priority = 100;
  syncAddress = 0;
  forceSync = false;
  count = 0;
  readonly values = new Uint8Array(SLOTS);
  slotPriority: Uint8Array | null = null;
  changedAt: Float64Array | null = null;
  private slotPriorityAt = 0;
  /** Levels that wait for their synchronisation packet, as a packet of their own */
  private held: Uint8Array | undefined;
  private heldCount = -1;
  private heldAt = 0;
  private readonly cidText: string;

  constructor(
    readonly mark: number,
    readonly origin: StreamOrigin,
    now: number,
  ) {
    this.account = new StreamAccount(origin.protocol, now);
    this.address = origin.address;
    this.cidText = origin.cid.length > 0 ? formatCid(origin.cid) : '';
  }

  /** Takes in levels that stand in `packet` from `at`. */
  setLevels(packet: Uint8Array, at: number, count: number, now: number): void {
    const { values, changedAt } = this;
    if (changedAt !== null) for (let i = 0; i < count; i += 1) if (values[i] !== packet[at + i]) changedAt[i] = now;
    // Copying is quicker than finding out whether anything changed.
    values.set(packet.subarray(at, at + count));
    if (count < this.count) values.fill(0, count);
    this.count = count;
  }

  /** Keeps levels until {@link release}; of several only the last are kept. */
  hold(packet: Uint8Array, at: number, count: number, now: number): void {
    this.held ??= new Uint8Array(SLOTS);
    this.held.set(packet.subarray(at, at + count));
    this.heldCount = count;
    this.heldAt = now;
  }

  /** Takes in the levels that waited; returns whether there were any. */
  release(): boolean {
    if (this.heldCount < 0) return false;
    this.setLevels(this.held!, 0, this.heldCount, this.heldAt);
    this.heldCount = -1;
    return true;
  }

  /** Takes in per-slot priorities; slots beyond `count` are not controlled. */
  setSlotPriority(packet: Uint8Array, at: number, count: number, now: number): void {
    this.slotPriorityAt = now;
    this.slotPriority ??= new Uint8Array(SLOTS);
    this.slotPriority.set(packet.subarray(at, at + count));
    this.slotPriority.fill(0, count);
  }

  /** Art-Net has no priorities: of what we send ourselves only the slots that `mask` (512) does not have at 0 are ours. */
  controlOnly(mask: Uint8Array): void {
    this.slotPriority = mask;
    this.slotPriorityAt = Infinity;
  }

  /** Drops per-slot priority that has not been renewed; returns whether it did. */
  expireSlotPriority(now: number): boolean {
    if (this.slotPriority === null || now - this.slotPriorityAt <= SLOT_PRIORITY_TIMEOUT_MS) return false;
    this.slotPriority = null;
    return true;
  }

  /** From now on remembers when each slot changed. */
  keepChangeTimes(): void {
    this.changedAt ??= new Float64Array(SLOTS);
  }

  /** `epoch` turns the engine's clock into Unix time. */
  report(now: number, timeout: number, epoch: number): StreamReport {
    const { account, origin } = this;
    return {
      mark: this.mark,
      name: this.name,
      address: this.address,
      cid: this.cidText,
      priority: this.priority,
      slotPriority: this.slotPriority !== null,
      preview: account.preview,
      terminated: account.terminated,
      lost: account.lost(now, timeout),
      own: origin.sent !== 'others',
      routed: origin.sent === 'route',
      waits: this.heldCount >= 0,
      syncAddress: this.syncAddress,
      slotCount: this.count,
      rate1: account.rate1(now),
      rate10: Math.round(account.rate10(now) * 10) / 10,
      jitter: Math.round(account.jitter * 10) / 10,
      packets: account.packets,
      missing: account.missing,
      missing10: account.missing10(now),
      repeats: account.repeats,
      late: account.late,
      firstSeen: Math.round(account.firstSeen + epoch),
      lastSeen: Math.round(account.lastSeen + epoch),
    };
  }
}
