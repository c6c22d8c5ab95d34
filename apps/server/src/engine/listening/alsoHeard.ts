/** What else Art-Net senders say: time, diagnostics, triggers and commands, counted by sender and kind. */
import type { OtherKind } from '@taxiarch/core/protocol/artnet';
import { printable } from '@taxiarch/core/base/bytes';
import type { AlsoHeardReport } from '@taxiarch/core/signal/stream';

/** Kinds by sender that are told apart; the longest silent makes room. */
const MOST = 128;

export class AlsoHeard {
  private readonly entries = new Map<string, { -readonly [K in keyof AlsoHeardReport]: AlsoHeardReport[K] }>();

  note(kind: OtherKind, address: string, says: string, unixTime: number): void {
    const key = `${kind} ${address}`;
    const known = this.entries.get(key);
    const text = printable(says);
    // The latest stands last, so that the first is the longest silent.
    this.entries.delete(key);
    if (this.entries.size >= MOST) this.entries.delete(this.entries.keys().next().value!);
    this.entries.set(key, {
      kind,
      address,
      count: (known?.count ?? 0) + 1,
      says: text,
      changedAt: known && known.says === text ? known.changedAt : Math.round(unixTime),
      lastSeen: Math.round(unixTime),
    });
  }

  report(): AlsoHeardReport[] {
    return [...this.entries.values()].reverse();
  }
}
