/** What leaves a plug when nobody sends what it carries any more. */
import { SLOTS } from '../../base/address';

export interface PlugLoss {
  readonly kind: 'hold' | 'hold-black' | 'fade' | 'full' | 'look';
  /** Seconds */
  readonly after: number;
  readonly over: number;
}

/**
 * Levels after `silent` seconds without a sender, from the last that were heard. A look is nothing that a plain
 * adapter can keep: it holds.
 */
export function afterLoss(last: Uint8Array, { kind, after, over }: PlugLoss, silent: number): Uint8Array {
  switch (kind) {
    case 'full':
      return new Uint8Array(SLOTS).fill(255);
    case 'hold-black':
      return silent < after ? last : new Uint8Array(SLOTS);
    case 'fade': {
      const share = over <= 0 ? 0 : Math.max(0, 1 - silent / over);
      return last.map((level) => Math.round(level * share));
    }
    default:
      return last;
  }
}
