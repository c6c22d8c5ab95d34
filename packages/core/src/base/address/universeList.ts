/** Show universes written as people write them: `1-12, 41`. */
import { SACN_LAST, SHOW_UNIVERSE_LAST } from './universe';
import { ok, refuse, type Result } from '../result';

/** Runs of numbers that stand together, both ends included; `numbers` rise. */
export function runsOf(numbers: readonly number[]): [first: number, last: number][] {
  const runs: [number, number][] = [];
  for (const number of numbers) {
    const run = runs[runs.length - 1];
    if (run && number === run[1] + 1) run[1] = number;
    else runs.push([number, number]);
  }
  return runs;
}

export const formatUniverses = (universes: readonly number[]): string =>
  runsOf([...new Set(universes)].sort((a, b) => a - b))
    .map(([first, last]) => (first === last ? String(first) : `${first}-${last}`))
    .join(', ');

/** Most universes that one sender may be planned to send. */
const MOST = 4096;

type Run = [first: number, last: number];

/** Runs as they are written, each within 1 and `highest`. */
function readRuns(text: string, highest: number): Result<Run[]> {
  const runs: Run[] = [];
  const parts = text
    .replace(/\s*[-–]\s*/g, '-')
    .split(/[\s,;]+/)
    .filter((part) => part !== '');
  for (const part of parts) {
    const match = /^(\d{1,6})(?:-(\d{1,6}))?$/.exec(part);
    if (!match) return refuse('not-understood', `“${part}” is no universe and no run of them: write 1-12, 41.`);
    const first = Number(match[1]);
    const last = Number(match[2] ?? match[1]);
    if (first < 1 || last > highest)
      return refuse('out-of-range', `Universes run from 1 to ${highest}; “${part}” goes beyond.`);
    if (last < first) return refuse('not-understood', `The run ${part} ends before it begins.`);
    runs.push([first, last]);
  }
  return ok(runs);
}

/** Numbers and runs, with commas or spaces between; rising, each once. Empty text is no universes. */
export function readUniverses(text: string): Result<number[]> {
  const runs = readRuns(text, SHOW_UNIVERSE_LAST);
  if (!runs.ok) return runs;
  const universes = new Set<number>();
  for (const [first, last] of runs.value) {
    if (universes.size + last - first + 1 > MOST)
      return refuse('out-of-range', `One sender sends at most ${MOST} universes.`);
    for (let universe = first; universe <= last; universe += 1) universes.add(universe);
  }
  return ok([...universes].sort((a, b) => a - b));
}

/** Runs of sACN universes, rising, those that touch or overlap joined; at least one. */
export function readSacnRuns(text: string): Result<Run[]> {
  const runs = readRuns(text, SACN_LAST);
  if (!runs.ok) return runs;
  if (runs.value.length === 0) return refuse('nothing', 'Say which sACN universes, as in 1-1000.');
  const joined: Run[] = [];
  for (const [first, last] of runs.value.sort(([a], [b]) => a - b)) {
    const before = joined[joined.length - 1];
    if (before && first <= before[1] + 1) before[1] = Math.max(before[1], last);
    else joined.push([first, last]);
  }
  return ok(joined);
}
