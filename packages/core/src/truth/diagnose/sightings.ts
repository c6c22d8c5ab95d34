/** What people saw, as far as it still counts: what changed on the path of each makes it old. */
import { KEPT_BY_ITSELF } from '../../network/machine';
import { latestSightings, seenAs, type OnPath, type Seen } from '../known';
import { type Patch, universesOfLamp } from '../../rig/patch';
import type { ShowRecords, Sighting, Subject } from '../../show/records';
import { nearOf } from './near';

const NOTHING: readonly OnPath[] = [];

/** The latest revision of each. */
function latest(found: readonly (readonly [id: string, rev: number])[]): ReadonlyMap<string, number> {
  const all = new Map<string, number>();
  for (const [id, rev] of found) all.set(id, Math.max(rev, all.get(id) ?? 0));
  return all;
}

/** The paths of many things; those of lamps on one universe are worked out once. */
export class Paths {
  private readonly byUniverse = new Map<number, readonly OnPath[]>();

  /** Last edit at which a lamp was set anew, by its UID, and a machine was pushed to: how it was is kept before. */
  private readonly setAnew: ReadonlyMap<string, number>;
  private readonly pushed: ReadonlyMap<string, number>;

  constructor(
    private readonly records: ShowRecords,
    private readonly patch: Patch,
  ) {
    this.setAnew = latest(records.lampSettings.flatMap(({ rev, lamps }) => lamps.map(({ uid }) => [uid, rev])));
    this.pushed = latest(
      records.snapshot.flatMap(({ rev, about, machineId }) =>
        about === KEPT_BY_ITSELF && machineId !== null ? [[machineId, rev]] : [],
      ),
    );
  }

  of(about: Subject): readonly OnPath[] {
    if (about.kind !== 'lamp') return this.along(about);
    const patched = this.patch.lamp(about.id);
    if (!patched) return NOTHING;
    const { lamp, type } = patched;
    const set = this.setAnew.get(lamp.uid);
    return [
      { name: lamp.name, rev: lamp.rev },
      { name: `${type.maker} ${type.name}`.trim(), rev: type.rev },
      ...(set === undefined || lamp.uid === '' ? [] : [{ name: `how ${lamp.name} is set`, rev: set }]),
      ...universesOfLamp(lamp).flatMap((number) => this.ofUniverse(number)),
    ];
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
    if (alone) return this.machines((id) => id === about.id);
    return [
      ...this.records.universe
        .filter(({ number }) => universes.includes(number))
        .map(({ number, rev }) => ({ name: `universe ${number}`, rev })),
      ...this.machines((id) => senders.has(id) || nodes.has(id)),
    ];
  }

  private machines(which: (id: string) => boolean): OnPath[] {
    return this.records.machine
      .filter(({ id }) => which(id))
      .flatMap(({ id, name, rev }) => {
        const pushed = this.pushed.get(id);
        return [{ name, rev }, ...(pushed === undefined ? [] : [{ name: `a push to ${name}`, rev: pushed }])];
      });
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
