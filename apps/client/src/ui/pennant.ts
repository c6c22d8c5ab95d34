/** The drawing of a pennant: outline, hatching and tint, for SVG and canvas alike. */
import { OWN_PENNANT } from '@taxiarch/core/network/flow';
import type { Pennant, PennantCut, PennantFill } from '@taxiarch/core/show/records';

/** Outlines in a box of 24 × 16. */
const OUTLINES: Readonly<Record<PennantCut, string>> = {
  swallow: 'M0 0H24L18 8L24 16H0Z',
  notch: 'M0 0H24V5L19 8L24 11V16H0Z',
  square: 'M0 0H24V16H0Z',
  triangle: 'M0 0L24 8L0 16Z',
};

/** Hatching along the free end, so that the letter stays clear. */
const FILLS: Readonly<Record<PennantFill, string>> = {
  plain: '',
  dots: 'M16 3h2v2h-2zM16 7h2v2h-2zM16 11h2v2h-2z',
  bars: 'M15 0h2v16h-2zM19 0h1.5v16h-1.5z',
  chevrons: 'M14 2l4 6l-4 6h2l4-6l-4-6z',
};

const TINTS = ['#d8c39a', '#9fbcae', '#cda3a0', '#b9b07a', '#b7a8c6', '#d3a374'] as const;
const OWN_TINT = '#f0907a';
export const PENNANT_INK = '#1a160e';

export interface PennantShape {
  readonly outline: string;
  readonly hatching: string;
  readonly tint: string;
}

/** Taxiarch's own flag, by which everybody sees what it has taken. */
export const isOwnPennant = ({ letter, cut, fill }: Pennant): boolean =>
  letter === OWN_PENNANT.letter && cut === OWN_PENNANT.cut && fill === OWN_PENNANT.fill;

export function pennantShape({ letter, cut, fill }: Pennant): PennantShape {
  return {
    outline: OUTLINES[cut],
    hatching: FILLS[fill],
    tint: isOwnPennant({ letter, cut, fill }) ? OWN_TINT : TINTS[letter.charCodeAt(0) % TINTS.length]!,
  };
}
