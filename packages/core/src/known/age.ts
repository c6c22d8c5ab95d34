/** How old evidence is, as a person says it. */

const STEPS = [
  [10_000, 1000, 's', 1],
  [120_000, 1000, 's', 0],
  [2 * 3_600_000, 60_000, 'min', 0],
  [48 * 3_600_000, 3_600_000, 'h', 0],
] as const;
const DAY_MS = 24 * 3_600_000;

/** `0.4 s ago`, `12 min ago`, `3 days ago`; a clock that runs ahead makes nothing younger than now. `ms`: milliseconds. */
export function ageText(ms: number): string {
  const age = Math.max(0, ms);
  for (const [below, unit, name, digits] of STEPS)
    if (age < below) return `${(age / unit).toFixed(digits)} ${name} ago`;
  return `${Math.floor(age / DAY_MS)} days ago`;
}
