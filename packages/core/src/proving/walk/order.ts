/** Which lamps a walk covers, and in which order. */
import { universesOfPort } from '../../network/machine';
import type { Patch, PatchedLamp } from '../../rig/patch';
import type { Place, ShowRecords, WalkCovers, WalkOrder } from '../../show/records';

/** How the lamps of walks stood, for those that cover what failed or what changed. */
export interface Before {
  readonly failed: ReadonlySet<string>;
  readonly changed: ReadonlySet<string>;
}

/** Whether a lamp is patched on what a port carries. */
function matchesPort(
  { spans }: PatchedLamp,
  records: Pick<ShowRecords, 'machine'>,
  machineId: string,
  port: number,
): boolean {
  const universes = new Set(universesOfPort(records, machineId, port));
  return spans.some(({ universe }) => universes.has(universe));
}

/** Lamps and runs that are covered. `chosen`: by their ids, for a walk of those. */
export function coveredLamps(
  { kind, id, part }: WalkCovers,
  records: ShowRecords,
  patch: Patch,
  chosen: ReadonlySet<string>,
  before: Before,
): PatchedLamp[] {
  const which = ((): ((one: PatchedLamp) => boolean) => {
    switch (kind) {
      case 'rig':
        return () => true;
      case 'place':
        return ({ lamp }) => lamp.placeId === id;
      case 'port':
        return (one) => matchesPort(one, records, id, Number(part));
      case 'universe':
        return ({ spans }) => spans.some(({ universe }) => universe === Number(id));
      case 'chosen':
        return ({ lamp }) => chosen.has(lamp.id);
      case 'failed':
        return ({ lamp }) => before.failed.has(lamp.id);
      case 'changed':
        return ({ lamp }) => before.changed.has(lamp.id);
    }
  })();
  return patch.all().filter(which);
}

type Compare = (a: PatchedLamp, b: PatchedLamp) => number;

const byNumber: Compare = (a, b) => a.lamp.number - b.lamp.number || a.lamp.name.localeCompare(b.lamp.name, 'en');
const byAddress: Compare = (a, b) =>
  a.lamp.universe - b.lamp.universe || a.lamp.channel - b.lamp.channel || byNumber(a, b);

/** The lamps in an order; places in that of the show, and lamps without one last. */
export function ordered(
  lamps: readonly PatchedLamp[],
  order: WalkOrder,
  places: readonly Pick<Place, 'id'>[],
): PatchedLamp[] {
  const sorted = [...lamps].sort(order === 'address' ? byAddress : byNumber);
  if (order === 'way') return shortestWay(sorted);
  if (order !== 'place') return sorted;
  const at = new Map(places.map(({ id }, i) => [id, i]));
  const placeOf = ({ lamp }: PatchedLamp) => at.get(lamp.placeId ?? '') ?? places.length;
  return sorted.sort((a, b) => placeOf(a) - placeOf(b) || byNumber(a, b));
}

/** With more lamps than this the way is only as good as going to the nearest each time. */
const MOST_TURNED = 1200;
const ROUNDS = 12;

const apart = ({ lamp: a }: PatchedLamp, { lamp: b }: PatchedLamp): number => Math.hypot(a.x - b.x, a.y - b.y);

/** Length of a way over the plan, m. */
export const wayLength = (lamps: readonly PatchedLamp[]): number =>
  lamps.reduce((sum, one, i) => (i === 0 ? 0 : sum + apart(lamps[i - 1]!, one)), 0);

/**
 * A short way over the plan that begins at the first: to the nearest each time, then stretches of it are turned around
 * as long as that makes it shorter.
 */
function shortestWay(lamps: readonly PatchedLamp[]): PatchedLamp[] {
  const [first, ...rest] = lamps;
  if (!first) return [];
  const way = [first];
  const left = [...rest];
  while (left.length > 0) {
    const here = way[way.length - 1]!;
    let nearest = 0;
    for (let i = 1; i < left.length; i += 1) if (apart(here, left[i]!) < apart(here, left[nearest]!)) nearest = i;
    way.push(left[nearest]!);
    // Those that are left keep their order, so that of lamps in one spot the lower number comes first.
    left.splice(nearest, 1);
  }
  if (way.length > MOST_TURNED) return way;
  for (let round = 0; round < ROUNDS && turnStretches(way); round += 1);
  return way;
}

/** Turns stretches around that make the way shorter; false if none does. */
function turnStretches(way: PatchedLamp[]): boolean {
  let found = false;
  for (let i = 1; i < way.length - 1; i += 1)
    for (let k = i + 1; k < way.length; k += 1) {
      const after = way[k + 1];
      const now = apart(way[i - 1]!, way[i]!) + (after ? apart(way[k]!, after) : 0);
      const then = apart(way[i - 1]!, way[k]!) + (after ? apart(way[i]!, after) : 0);
      if (then >= now - 1e-9) continue;
      for (let a = i, b = k; a < b; a += 1, b -= 1) [way[a], way[b]] = [way[b]!, way[a]!];
      found = true;
    }
  return found;
}
