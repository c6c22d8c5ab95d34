/** How long ago, as a person says it. */
import dayjs from 'dayjs';
import duration from 'dayjs/plugin/duration.js';

dayjs.extend(duration);

/** `4 s`, `3 min`, `2 h`, `3 days`: from milliseconds; a clock that runs ahead makes nothing younger than now. */
export function spell(ms: number): string {
  const ago = dayjs.duration(Math.max(0, ms));
  if (ago.asSeconds() < 1) return 'under 1 s';
  if (ago.asSeconds() < 90) return `${Math.round(ago.asSeconds())} s`;
  if (ago.asMinutes() < 90) return `${Math.round(ago.asMinutes())} min`;
  if (ago.asHours() < 48) return `${Math.round(ago.asHours())} h`;
  return `${Math.floor(ago.asDays())} days`;
}
