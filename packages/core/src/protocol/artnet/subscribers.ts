/** Who wants to be told whenever something changes (Art-Net 4, ArtPoll, Flags bit 1), as long as they go on polling. */
import { POLL_REPLY_ON_CHANGE, type ArtPoll } from './poll';

/** Who has not polled for this long is told no more, ms. */
const SUBSCRIBED_MS = 10_000;
/** Most that are told */
const MOST_SUBSCRIBED = 64;

/** Times are milliseconds of one clock. */
export class Subscribers {
  private readonly at = new Map<string, number>();

  /** A poll came from `address`; it counts if it asks to be told of changes and there is room. */
  note({ flags }: Pick<ArtPoll, 'flags'>, address: string, now: number): void {
    if (!(flags & POLL_REPLY_ON_CHANGE)) return;
    this.forgetSilent(now);
    if (this.at.size < MOST_SUBSCRIBED || this.at.has(address)) this.at.set(address, now);
  }

  addresses(now: number): string[] {
    this.forgetSilent(now);
    return [...this.at.keys()];
  }

  private forgetSilent(now: number): void {
    for (const [address, at] of this.at) if (now - at > SUBSCRIBED_MS) this.at.delete(address);
  }
}
