/** Times as people say them. */

/** “4 s”, “3 min”, “2 h”: how long ago, from milliseconds. */
export function spell(ms: number): string {
  const seconds = Math.max(0, ms) / 1000;
  if (seconds < 1) return 'under 1 s';
  if (seconds < 90) return `${Math.round(seconds)} s`;
  if (seconds < 5400) return `${Math.round(seconds / 60)} min`;
  return `${Math.round(seconds / 3600)} h`;
}

/** Clock time of a Unix time in ms: “14:02:11”. */
export const clockTime = (at: number): string => new Date(at).toLocaleTimeString('en-GB');

/** “1 universe”, “12 universes”. */
export { countOf as count } from '@taxiarch/core/edit';

/** Seconds as on a stopwatch: `3:07`. */
export const stopwatch = (seconds: number): string =>
  `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, '0')}`;
