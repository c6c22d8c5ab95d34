/** Times as people say them. */
import dayjs from 'dayjs';

/** How long ago, from milliseconds: “4 s”, “3 min”, “2 h”. */
export { spell } from '@taxiarch/core/truth/known';

/** Clock time of a Unix time in ms: “14:02:11”. */
export const clockTime = (at: number): string => dayjs(at).format('HH:mm:ss');

/** Day and time of a Unix time in ms or an ISO date: “1 Dec 2026, 14:02”. */
export const dayAndTime = (at: number | string): string => dayjs(at).format('D MMM YYYY, HH:mm');

/** “1 Dec” */
export const dayOf = (at: number): string => dayjs(at).format('D MMM');

/** “1 universe”, “12 universes”. */
export { countOf as count } from '@taxiarch/core/show/edit';

/** A midnight at which no clock is put forward or back. */
const MIDNIGHT = dayjs('2000-01-01');

/** Seconds as on a stopwatch: `3:07`. */
export const stopwatch = (seconds: number): string =>
  MIDNIGHT.add(seconds, 'second').format(seconds < 3600 ? 'm:ss' : 'H:mm:ss');
