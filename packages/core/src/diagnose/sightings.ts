/** What people saw, as far as it still counts: what changed on the path of each makes it old. */
import { latestSightings, seenAs, type OnPath, type Seen } from '../known';
import type { Patch } from '../patch';
import type { ShowRecords, Sighting, Subject } from '../records';
import { nearOf } from './near';

const NOTHING: readonly OnPath[] = [];

/** The paths of many things; those of lamps on one universe are worked out once. */
class Paths {
  private readonly byUniverse = new Map<number, readonly OnPath[]>();

  constructor(
    private readonly records: ShowRecords,
    private readonly patch: Patch,
  ) {}

  of(about: Subject): readonly OnPath[] {
    if (about.kind !== 'lamp') return this.along(about);
    const lamp = this.patch.lamp(about.id)?.lamp;
    if (!lamp) return NOTHING;
    const numbers = [lamp.universe, ...lamp.blocks.map(({ universe }) => universe)];
    return [{ name: lamp.name, rev: lamp.rev }, ...numbers.flatMap((number) => this.ofUniverse(number))];
  }

  private ofUniverse(number: number): readonly OnPath[] {
    const known = this.byUniverse.get(number);
    if (known) return known;
    const made = this.along({ kind: 'universe', id: String(number), part: '' });
    this.byUniverse.set(number, made);
    return made;
  }

  private along(about: Subject): readonly OnPath[] {
    const { universes, senders, nodes } = nearOf(about, this.records, this.patch);
    // What is seen at a machine hangs on that machine alone.
    const alone = about.kind === 'machine' || about.kind === 'port' || about.kind === 'interface';
    if (alone) return this.records.machine.filter(({ id }) => id === about.id);
    return [
      ...this.records.universe
        .filter(({ number }) => universes.includes(number))
        .map(({ number, rev }) => ({ name: `universe ${number}`, rev })),
      ...this.records.machine.filter(({ id }) => senders.has(id) || nodes.has(id)),
    ];
  }
}

export interface SeenNow extends Seen {
  readonly sighting: Sighting;
}

/** The last answer to each question, by its key. */
export function sightingsNow(records: ShowRecords, patch: Patch): Map<string, SeenNow> {
  const paths = new Paths(records, patch);
  return new Map(
    [...latestSightings(records)].map(([key, sighting]) => [
      key,
      { ...seenAs(sighting, paths.of(sighting.about)), sighting },
    ]),
  );
}
