/** What can be wrong with a sender on purpose. */
import { joinPortAddress, splitPortAddress, type Protocol } from '@taxiarch/core/base/address';

export interface SenderMistakes {
  /** Added to every universe of a protocol */
  readonly shift: Readonly<Record<Protocol, number>>;
  /** Added to net and sub-net of every Port-Address */
  readonly net: number;
  readonly sub: number;
  /** Protocols that are switched off, and show universes that are */
  readonly off: readonly Protocol[];
  readonly silent: readonly number[];
  /** Instead of its own; null for that */
  readonly priority: number | null;
  readonly rate: number | null;
  readonly cid: string | null;
  /** Address of the interface that it sends by; null for the right one */
  readonly from: string | null;
  /** The only box that it sends to; null for all */
  readonly to: string | null;
  /** Part of its packets that never leave, 0–1 */
  readonly loses: number;
  readonly syncAddress: number;
  readonly startCode: number;
  readonly slots: number;
  /** sACN universes that it sends beside its own: as the first of these */
  readonly also: readonly number[];
}

export const NO_MISTAKES: SenderMistakes = {
  shift: { sacn: 0, artnet: 0 },
  net: 0,
  sub: 0,
  off: [],
  silent: [],
  priority: null,
  rate: null,
  cid: null,
  from: null,
  to: null,
  loses: 0,
  syncAddress: 0,
  startCode: 0,
  slots: 512,
  also: [],
};

/** Where a universe really goes. */
export function wireWith({ shift, net, sub }: SenderMistakes, protocol: Protocol, wire: number): number {
  const moved = wire + shift[protocol];
  if (protocol === 'sacn' || (net === 0 && sub === 0)) return moved;
  const parts = splitPortAddress(moved);
  return joinPortAddress({ net: parts.net + net, sub: (parts.sub + sub) & 0xf, universe: parts.universe });
}
