/** How long ago, as a person says it. */
import dayjs from 'dayjs';

/** `4 s`, `3 min`, `2 h`, `3 days`: from milliseconds; a clock that runs ahead makes nothing younger than now. */
export function spell(ms: number): string {
  const end = dayjs(Math.max(0, ms));
  const ago = (unit: 'second' | 'minute' | 'hour') => end.diff(0, unit, true);
  if (ago('second') < 1) return 'under 1 s';
  if (ago('second') < 90) return `${Math.round(ago('second'))} s`;
  if (ago('minute') < 90) return `${Math.round(ago('minute'))} min`;
  if (ago('hour') < 48) return `${Math.round(ago('hour'))} h`;
  return `${Math.floor(ago('hour') / 24)} days`;
}
