/** What walks are called by, in words. */
import type { MarkReason, WalkOrder, WalkPicture } from '@taxiarch/core/show/records';

export const PICTURE_WORDS: Readonly<Record<WalkPicture, string>> = {
  full: 'Full',
  colours: 'Colours in turn',
  'pan and tilt': 'Pan and tilt',
  channels: 'Each channel',
  cells: 'Each cell',
};

export const ORDER_WORDS: Readonly<Record<WalkOrder, string>> = {
  number: 'Number',
  address: 'Address',
  place: 'Place',
  way: 'Short way',
};

/** Of lamps, and of channels */
export const REASONS: readonly (readonly [why: MarkReason, label: string])[] = [
  ['dark', 'Dark'],
  ['wrong lamp', 'Wrong lamp'],
  ['wrong colour', 'Wrong colour'],
  ['wrong way', 'Wrong way'],
  ['flickers', 'Flickers'],
  ['moves wrong', 'Moves wrong'],
  ['other', 'Other'],
];
