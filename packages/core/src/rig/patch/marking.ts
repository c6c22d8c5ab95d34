/** What is said of lamps beside their addresses: number, name, tag, groups, place; and removing them. */
import { ok, refuse, type Result } from '../../base/result';
import type { Lamp, Place, Tag } from '../../show/records';
import { lampName, lampsOf, nameFrom, NONE_CHOSEN } from './lamps';
import { addressesOf } from './patch';
import { formatAll, type Rig } from './rig';
import { added, changed, countOf, type Plan, type PlanLine, removed } from '../../show/edit';

/** Changes that leave addresses alone; lines say the part that changes. */
function altered(
  rig: Rig,
  ids: readonly string[],
  sentence: (count: number) => string,
  alter: (lamp: Lamp, i: number) => Lamp,
  said: (lamp: Lamp) => string,
): Result<Plan> {
  const lamps = lampsOf(rig, ids).map(({ lamp }) => lamp);
  if (lamps.length === 0) return NONE_CHOSEN;
  const pairs = lamps.map((lamp, i) => [lamp, alter(lamp, i)] as const);
  return ok({
    sentence: sentence(lamps.length),
    changes: pairs.map(([before, after]) => changed('lamp', before, after)),
    lines: pairs.map(([before, after]): PlanLine => ({
      subject: lampName(before),
      before: said(before),
      after: said(after),
    })),
  });
}

export function renumber(rig: Rig, ids: readonly string[], from: number, step: number): Result<Plan> {
  if (!Number.isInteger(from) || from < 1 || !Number.isInteger(step) || step < 1)
    return refuse('out-of-range', 'Numbers begin at 1 or above and rise by 1 or more.');
  return altered(
    rig,
    ids,
    (count) => `Renumbered ${countOf(count, 'lamp')} from ${from} on`,
    (lamp, i) => ({ ...lamp, number: from + i * step }),
    ({ number }) => String(number),
  );
}

export function rename(rig: Rig, ids: readonly string[], pattern: string, from: number): Result<Plan> {
  if (pattern.trim() === '')
    return refuse('not-understood', 'Give a name, as in “Port spot #”; # is the running number.');
  return altered(
    rig,
    ids,
    (count) => `Renamed ${countOf(count, 'lamp')}`,
    (lamp, i) => ({ ...lamp, name: nameFrom(pattern.trim(), from + i) }),
    ({ name }) => name,
  );
}

export const setTag = (rig: Rig, ids: readonly string[], tag: Tag): Result<Plan> =>
  altered(
    rig,
    ids,
    (count) => (tag === '' ? `Took the tag off ${countOf(count, 'lamp')}` : `Tagged ${countOf(count, 'lamp')} ${tag}`),
    (lamp) => ({ ...lamp, tag }),
    (lamp) => lamp.tag || 'no tag',
  );

/** Puts lamps into a group, or takes them out. */
export function setGroup(rig: Rig, ids: readonly string[], group: string, within: boolean): Result<Plan> {
  const name = group.trim();
  if (name === '') return refuse('not-understood', 'Give the group a name.');
  return altered(
    rig,
    ids,
    (count) => `${within ? 'Put' : 'Took'} ${countOf(count, 'lamp')} ${within ? 'into' : 'out of'} group ${name}`,
    (lamp) => {
      const others = lamp.groups.filter((one) => one !== name);
      return { ...lamp, groups: within ? [...others, name] : others };
    },
    ({ groups }) => groups.join(', ') || 'no group',
  );
}

export const setPlace = (rig: Rig, ids: readonly string[], placeId: string | null): Result<Plan> => {
  const called = (id: string | null) => rig.records.place.find((one) => one.id === id)?.name ?? 'no place';
  return altered(
    rig,
    ids,
    (count) => `Moved ${countOf(count, 'lamp')} to ${called(placeId)}`,
    (lamp) => ({ ...lamp, placeId }),
    (lamp) => called(lamp.placeId),
  );
};

/** Moves lamps to a place that is made for them. */
export function moveToNewPlace(rig: Rig, ids: readonly string[], name: string, newId: () => string): Result<Plan> {
  const { place } = rig.records;
  const wanted = name.trim();
  const there = place.find((one) => one.name === wanted);
  if (there) return setPlace(rig, ids, there.id);
  const order = place.reduce((most, one) => Math.max(most, one.order), 0) + 1;
  const made: Place = { id: newId(), rev: 0, name: wanted, order };
  const records = { ...rig.records, place: [...place, made] };
  const moved = setPlace({ ...rig, records }, ids, made.id);
  return moved.ok ? ok({ ...moved.value, changes: [added('place', made), ...moved.value.changes] }) : moved;
}

export function removeLamps(rig: Rig, ids: readonly string[]): Result<Plan> {
  const lamps = lampsOf(rig, ids).map(({ lamp }) => lamp);
  if (lamps.length === 0) return NONE_CHOSEN;
  return ok({
    sentence: `Removed ${countOf(lamps.length, 'lamp')}`,
    changes: lamps.map((lamp) => removed('lamp', lamp)),
    lines: lamps.map((lamp) => ({ subject: lampName(lamp), before: formatAll(addressesOf(lamp)), after: '' })),
  });
}

export const partTwins = (rig: Rig, ids: readonly string[]): Result<Plan> =>
  altered(
    rig,
    ids,
    (count) => `Made ${countOf(count, 'lamp')} no twin any more`,
    (lamp) => ({ ...lamp, twin: null }),
    ({ twin }) => (twin === null ? 'no twin' : 'twin'),
  );
