/** What the acts on lamps have in common: naming, finding and numbering lamps, and planning new ones. */
import type { SlotAddress } from '../../base/address';
import { refuse } from '../../base/result';
import type { FixtureType, Lamp } from '../../show/records';
import { addressesOf } from './patch';
import { formatAll, missingUniverses, type Rig } from './rig';
import { added, type Plan } from '../../show/edit';

export const lampName = ({ number, name }: Lamp): string => `${number} ${name}`;

/** `#` in a pattern becomes the running number; `##` has it at least two digits wide. */
export const nameFrom = (pattern: string, running: number): string =>
  pattern.includes('#') ? pattern.replace(/#+/g, (marks) => String(running).padStart(marks.length, '0')) : pattern;

/** The addresses of a lamp's blocks as the record keeps them. */
export const placedAt = ([first, ...blocks]: readonly SlotAddress[]): Pick<
  Lamp,
  'universe' | 'channel' | 'blocks'
> => ({
  universe: first!.universe,
  channel: first!.channel,
  blocks,
});

/** The lamps of these ids, in their order; runs and lamps that are gone are left out. */
export const lampsOf = ({ patch }: Rig, ids: readonly string[]) =>
  ids.flatMap((id) => {
    const patched = patch.lamp(id);
    return patched && !patched.run ? patched : [];
  });

export const NONE_CHOSEN = refuse('nothing', 'No lamp is chosen.');

/** Free lamp numbers from `from` on. */
export function* freeNumbers({ records }: Rig, from: number): Generator<number, never> {
  const used = new Set([...records.lamp, ...records.run].map(({ number }) => number));
  for (let number = from; ; number += 1) if (!used.has(number)) yield number;
}

/** What adding lamps writes: the types and universes that the show lacks, then the lamps. */
export function withNewLamps(
  { records }: Rig,
  lamps: readonly Lamp[],
  types: readonly FixtureType[],
  newId: () => string,
  before: (lamp: Lamp, i: number) => string = () => '',
): Pick<Plan, 'changes' | 'lines'> {
  const universes = missingUniverses(
    records,
    lamps.flatMap(addressesOf).map(({ universe }) => universe),
    newId,
  );
  const missing = new Set(types.filter(({ id }) => !records.type.some((type) => type.id === id)));
  return {
    changes: [
      ...[...missing].map((type) => added('type', type)),
      ...universes.changes,
      ...lamps.map((lamp) => added('lamp', lamp)),
    ],
    lines: [
      ...universes.lines,
      ...lamps.map((lamp, i) => ({
        subject: lampName(lamp),
        before: before(lamp, i),
        after: formatAll(addressesOf(lamp)),
      })),
    ],
  };
}
