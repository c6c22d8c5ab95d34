/** One sender on one universe as the engine holds it: its account, and its last levels. */
import { type Protocol, SLOTS } from '@taxiarch/core/base/address';
import {
  MOST_OFFERS,
  readStartCode,
  StreamAccount,
  type StartCodeReport,
  type StreamReport,
} from '@taxiarch/core/signal/stream';
import type { Contender } from '@taxiarch/core/signal/merge';
import { Sacn, formatCid } from '@taxiarch/core/protocol/sacn';

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
  /** Art-Net: the sender's physical input; 0 for sACN */
  readonly physical: number;
}

/** Two senders of one component id are told apart when they take turns within this time, by steps that one alone would not take. */
const TWIN_MS = 2500;
const TWIN_STEP = 3;
/** Alternate start codes told apart for each stream */
const MOST_START_CODES = 16;
/** A name is read again this often: reading it for each packet would cost more than the levels. */
const NAME_MS = 500;

/** A copy that lags so many packets behind is no copy (E1.31-2018, 6.7.2). */
const SECOND_WITHIN = 20;

export class Stream implements Contender {
  readonly account: StreamAccount;
  name = '';
  address: string;
  /** UDP port of the sender */
  port = 0;
  /** Of the adapter by whose plug it comes, and the number of its last frame; empty for what comes by network */
  plugId = '';
  plugCount = 0;
  /** Levels of it were let in; without any it contends for nothing. */
  hasLevels = false;
  /** When levels last came, by the engine's clock */
  levelsAt = -Infinity;
  /** The sender before this one under the same component id, and when it was last heard */
  private before = { address: '', port: 0, at: -Infinity };
  private namedAt = -Infinity;
  private readonly startCodes = new Map<number, { packets: number; slots: Uint8Array; at: number }>();
  priority = 100;
  syncAddress = 0;
  forceSync = false;
  count = 0;
  /** It lies in its buffer as the slots lie in the ring (126 bytes after a multiple of 8), so that they are copied by the word. */
  readonly values = new Uint8Array(new ArrayBuffer(SLOTS + 8), Sacn.DATA_HEADER_LENGTH % 8, SLOTS);
  slotPriority: Uint8Array | null = null;
  changedAt: Float64Array | null = null;
  private slotPriorityAt = 0;
  /** Levels that wait for their synchronisation packet, as a packet of their own */
  private held: Uint8Array | undefined;
  private heldCount = -1;
  private heldAt = 0;
  /** The socket by which its last packet came */
  via = 0;
  /** When the synchronisation packet came that its last levels were let in by */
  releasedAt = -Infinity;
  private readonly cidText: string;
  /** It is heard by IPv6, alone or beside IPv4. */
  private heardBySixth: boolean;

  constructor(
    readonly mark: number,
    readonly origin: StreamOrigin,
    now: number,
  ) {
    this.account = new StreamAccount(origin.protocol, now);
    this.address = origin.address;
    this.heardBySixth = origin.address.includes(':');
    this.cidText = origin.cid.length > 0 ? formatCid(origin.cid) : '';
  }

  /** Whether its name should be read now. */
  nameDue(now: number): boolean {
    if (now - this.namedAt < NAME_MS) return false;
    this.namedAt = now;
    return true;
  }

  /**
   * A packet under this stream's component id comes from here. Returns whether it goes on with the stream: a sender may
   * move to another address or port, but one that moves back and forth and does not count on is two.
   */
  comesFrom(address: string, port: number, step: number, now: number): boolean {
    const back = address === this.before.address && port === this.before.port;
    if (back && now - this.before.at < TWIN_MS && (step < 1 || step > TWIN_STEP)) return false;
    if (step < 1 || step > TWIN_STEP) this.account.forgetSequence();
    this.before = { address: this.address, port: this.port, at: this.account.lastSeen };
    this.address = address;
    this.port = port;
    return true;
  }

  /** Whether a packet of this source came by the other version of IP than it was first heard by. */
  isOtherFamily(address: string): boolean {
    const sixth = address.includes(':');
    this.heardBySixth ||= sixth;
    return sixth !== this.address.includes(':');
  }

  /** Whether a packet is the copy of the last one, sent by the other version of IP. */
  isCopy(address: string, sequence: number): boolean {
    return this.isOtherFamily(address) && this.account.stepTo(sequence) <= 0;
  }

  /** Whether a packet is the copy of one that came by another socket: its sender sends by multicast and unicast alike. */
  isSecond(address: string, via: number, sequence: number): boolean {
    if (via === this.via || address !== this.address) return false;
    const step = this.account.stepTo(sequence);
    return step <= 0 && step > -SECOND_WITHIN;
  }

  noteStartCode(code: number, slots: Uint8Array, now: number): void {
    const known = this.startCodes.get(code);
    if (!known && this.startCodes.size >= MOST_START_CODES) return;
    this.startCodes.set(code, { packets: (known?.packets ?? 0) + 1, slots: slots.slice(), at: now });
  }

  private startCodesReport(epoch: number): StartCodeReport[] {
    return [...this.startCodes]
      .sort(([a], [b]) => a - b)
      .map(([code, { packets, slots, at }]) => ({
        code,
        packets,
        says: readStartCode(code, slots),
        lastSeen: Math.round(at + epoch),
      }));
  }

  /** Takes in levels that stand in `packet` from `at`. */
  setLevels(packet: Uint8Array, at: number, count: number, now: number): void {
    const { values, changedAt } = this;
    this.hasLevels = true;
    this.levelsAt = now;
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
    this.levelsAt = now;
  }

  /** Takes in the levels that waited; returns whether there were any. `now` is when their synchronisation packet came. */
  release(now: number): boolean {
    if (this.heldCount < 0) return false;
    this.setLevels(this.held!, 0, this.heldCount, this.heldAt);
    this.heldCount = -1;
    this.releasedAt = now;
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

  /** Runs of slots for which it has levels, waiting ones too, and a priority above 0; the first of them. */
  private offers(): StreamReport['offers'] {
    const runs: { from: number; to: number }[] = [];
    const count = Math.max(this.count, this.heldCount, 0);
    if (this.slotPriority === null) return count > 0 ? [{ from: 1, to: count }] : [];
    for (let slot = 0; slot < count; slot += 1) {
      if (this.slotPriority[slot] === 0) continue;
      const last = runs[runs.length - 1];
      if (last?.to === slot) last.to = slot + 1;
      else if (runs.length < MOST_OFFERS) runs.push({ from: slot + 1, to: slot + 1 });
    }
    return runs;
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
      levels: this.levelsAt > -Infinity,
      twin: false,
      physical: origin.physical,
      ipv6: this.heardBySixth,
      startCodes: this.startCodesReport(epoch),
      waits: this.heldCount >= 0,
      syncAddress: this.syncAddress,
      slotCount: this.count,
      rate1: account.rate1(now),
      discarded1: account.discarded1(now),
      discarded: account.discarded,
      pauses10: account.pauses10(now),
      offers: this.offers(),
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
