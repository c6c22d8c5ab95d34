/** How long ago, as a person says it. */

/** `4 s`, `3 min`, `2 h`, `3 days`: from milliseconds; a clock that runs ahead makes nothing younger than now. */
export function spell(ms: number): string {
  const seconds = Math.max(0, ms) / 1000;
  if (seconds < 1) return 'under 1 s';
  if (seconds < 90) return `${Math.round(seconds)} s`;
  if (seconds < 5400) return `${Math.round(seconds / 60)} min`;
  if (seconds < 48 * 3600) return `${Math.round(seconds / 3600)} h`;
  return `${Math.floor(seconds / 86_400)} days`;
}
