/** How a statement about the real world is known. */

/** From the strongest to the weakest. */
export const KNOWN = ['seen', 'heard', 'said', 'worked out', 'not known'] as const;
export type Known = (typeof KNOWN)[number];

/** What each means, in words for a person who taps the mark. */
export const KNOWN_MEANS: Readonly<Record<Known, string>> = {
  seen: 'A person looked.',
  heard: 'A packet came to this computer.',
  said: 'The device reported it.',
  'worked out': 'It follows from the plan and its rules; nobody has looked.',
  'not known': 'Nothing tells.',
};

/** A statement is at most as strong as the weakest that it rests on. */
export const weakest = (all: readonly Known[]): Known =>
  all.reduce<Known>((weak, one) => (KNOWN.indexOf(one) > KNOWN.indexOf(weak) ? one : weak), 'seen');
