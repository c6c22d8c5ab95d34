/** Times as people say them. */

/** How long ago, from milliseconds: “4 s”, “3 min”, “2 h”. */
export { spell } from '@taxiarch/core/truth/known';

/** Clock time of a Unix time in ms: “14:02:11”. */
export const clockTime = (at: number): string => new Date(at).toLocaleTimeString('en-GB');

/** “1 universe”, “12 universes”. */
export { countOf as count } from '@taxiarch/core/show/edit';

/** Seconds as on a stopwatch: `3:07`. */
export const stopwatch = (seconds: number): string =>
  `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, '0')}`;
