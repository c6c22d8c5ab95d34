/** New lamps: from a type, or copied. Each act is planned first: its lines are what would be written. */
import { ok, refuse, type Result } from '../../base/result';
import { blocksOf } from '../fixture';
import { type FixtureMode, type FixtureType, type Lamp, PLAIN_LAMP } from '../../show/records';
import { freeNumbers, lampsOf, nameFrom, NONE_CHOSEN, placedAt, withNewLamps } from './lamps';
import { Occupancy, placeAll, type PlaceRequest } from './occupancy';
import type { Rig } from './rig';
import { countOf, type Plan } from '../../show/edit';

export interface NewLamps {
  readonly type: FixtureType;
  readonly mode: FixtureMode;
  readonly count: number;
  readonly numberFrom: number;
  readonly pattern: string;
  readonly place: PlaceRequest;
  readonly placeId: string | null;
  readonly groups: readonly string[];
}

/** Most lamps added at once. */
const MOST_NEW = 5000;

/** New lamps, with the type and universes that they need. Numbers that are taken are passed over. */
export function addLamps(rig: Rig, wanted: NewLamps, newId: () => string): Result<Plan> {
  const { type, mode, count, pattern, placeId } = wanted;
  if (!Number.isInteger(count) || count < 1 || count > MOST_NEW)
    return refuse('out-of-range', `Say how many: 1 to ${MOST_NEW} lamps at once.`);
  if (pattern.trim() === '')
    return refuse('not-understood', 'Give a name, as in “Port spot #”; # is the running number.');
  const places = placeAll(
    new Occupancy(rig.patch),
    Array.from({ length: count }, () => blocksOf(mode)),
    wanted.place,
  );
  if (!places.ok) return places;
  const numbers = freeNumbers(rig, wanted.numberFrom);
  const stand = rig.records.lamp.filter((lamp) => lamp.placeId === placeId && placeId !== null);
  const mean = (of: (lamp: Lamp) => number) =>
    stand.length === 0 ? 0 : Math.round(stand.reduce((sum, lamp) => sum + of(lamp), 0) / stand.length);
  const middle = { x: mean((lamp) => lamp.x), y: mean((lamp) => lamp.y), z: mean((lamp) => lamp.z) };
  const lamps = places.value.map((addresses, i): Lamp => ({
    ...PLAIN_LAMP,
    id: newId(),
    rev: 0,
    number: numbers.next().value,
    name: nameFrom(pattern.includes('#') || count === 1 ? pattern : `${pattern} #`, i + 1),
    typeId: type.id,
    mode: mode.name,
    ...placedAt(addresses),
    placeId,
    groups: wanted.groups,
    ...middle,
    x: middle.x + i * 0.5,
  }));
  return ok({
    sentence: `Added ${countOf(count, 'lamp')} of ${type.maker} ${type.name}`,
    ...withNewLamps(rig, lamps, [type], newId),
  });
}

/** Copies of lamps at the next free addresses, numbered from `numberFrom` on. */
export function copyLamps(
  rig: Rig,
  ids: readonly string[],
  numberFrom: number,
  place: PlaceRequest,
  newId: () => string,
): Result<Plan> {
  const lamps = lampsOf(rig, ids);
  if (lamps.length === 0) return NONE_CHOSEN;
  const places = placeAll(
    new Occupancy(rig.patch),
    lamps.map(({ mode }) => blocksOf(mode)),
    place,
  );
  if (!places.ok) return places;
  const numbers = freeNumbers(rig, numberFrom);
  const copies = lamps.map(({ lamp }, i): Lamp => {
    const number = numbers.next().value;
    return {
      ...lamp,
      id: newId(),
      rev: 0,
      number,
      ...placedAt(places.value[i]!),
      twin: null,
      uid: '',
      uuid: '',
      written: '',
      x: lamp.x + 0.5,
    };
  });
  return ok({
    sentence: `Copied ${countOf(lamps.length, 'lamp')}`,
    ...withNewLamps(rig, copies, [], newId, (_, i) => `copy of ${lamps[i]!.lamp.number}`),
  });
}
