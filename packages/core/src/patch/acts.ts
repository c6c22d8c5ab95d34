/** What a person does to lamps. Each act is planned first: its lines are what would be written. */
import { SLOTS, formatAddress, fromAbsolute, refuse, read, toAbsolute, type Read, type SlotAddress } from '../address';
import { blocksOf, type FixtureMode } from '../fixture';
import type { FixtureType, Lamp, Place, Tag } from '../show';
import { Occupancy, placeAll, type PlaceRequest } from './occupancy';
import { addressesOf } from './patch';
import {
  added,
  changed,
  countOf,
  formatAll,
  missingUniverses,
  removed,
  type Plan,
  type PlanLine,
  type Rig,
} from './plan';

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

const NONE_CHOSEN = refuse('No lamp is chosen.');

/** Plans new addresses for lamps, and the universes that they need. */
function moved(
  rig: Rig,
  lamps: readonly Lamp[],
  places: readonly (readonly SlotAddress[])[],
  sentence: string,
  newId: () => string,
  alter: (lamp: Lamp) => Lamp = (lamp) => lamp,
): Plan {
  const universes = missingUniverses(
    rig.records,
    places.flat().map(({ universe }) => universe),
    newId,
  );
  const pairs = lamps.map((lamp, i) => [lamp, alter({ ...lamp, ...placedAt(places[i]!) })] as const);
  return {
    sentence,
    changes: [...universes.changes, ...pairs.map(([before, after]) => changed('lamp', before, after))],
    lines: [
      ...universes.lines,
      ...pairs.map(([before, after]) => ({
        subject: lampName(before),
        before: formatAll(addressesOf(before)),
        after: formatAll(addressesOf(after)),
      })),
    ],
  };
}

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

/** Free lamp numbers from `from` on. */
export function* freeNumbers({ records }: Rig, from: number): Generator<number, never> {
  const used = new Set([...records.lamp, ...records.run].map(({ number }) => number));
  for (let number = from; ; number += 1) if (!used.has(number)) yield number;
}

/** New lamps, with the universes that they need. Numbers that are taken are passed over. */
export function addLamps(rig: Rig, wanted: NewLamps, newId: () => string): Read<Plan> {
  const { type, mode, count, pattern, placeId } = wanted;
  if (!Number.isInteger(count) || count < 1 || count > MOST_NEW)
    return refuse(`Say how many: 1 to ${MOST_NEW} lamps at once.`);
  if (pattern.trim() === '') return refuse('Give a name, as in “Port spot #”; # is the running number.');
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
    id: newId(),
    rev: 0,
    number: numbers.next().value,
    name: nameFrom(pattern.includes('#') || count === 1 ? pattern : `${pattern} #`, i + 1),
    typeId: type.id,
    mode: mode.name,
    ...placedAt(addresses),
    placeId,
    groups: wanted.groups,
    tag: '',
    twin: null,
    locked: false,
    ...middle,
    x: middle.x + i * 0.5,
  }));
  const universes = missingUniverses(
    rig.records,
    places.value.flat().map(({ universe }) => universe),
    newId,
  );
  return read({
    sentence: `Added ${countOf(count, 'lamp')} of ${type.maker} ${type.name}`,
    changes: [...universes.changes, ...lamps.map((lamp) => added('lamp', lamp))],
    lines: [
      ...universes.lines,
      ...lamps.map((lamp) => ({ subject: lampName(lamp), before: '', after: formatAll(addressesOf(lamp)) })),
    ],
  });
}

/** New addresses for lamps, in the order given; what other lamps use is passed over. */
export function readdress(rig: Rig, ids: readonly string[], place: PlaceRequest, newId: () => string): Read<Plan> {
  const lamps = lampsOf(rig, ids);
  if (lamps.length === 0) return NONE_CHOSEN;
  const places = placeAll(
    new Occupancy(rig.patch, new Set(ids)),
    lamps.map(({ mode }) => blocksOf(mode)),
    place,
  );
  if (!places.ok) return places;
  const to = formatAddress(places.value[0]![0]!);
  return read(
    moved(
      rig,
      lamps.map(({ lamp }) => lamp),
      places.value,
      `Addressed ${countOf(lamps.length, 'lamp')} from ${to} on`,
      newId,
    ),
  );
}

/** Puts one lamp's first block exactly where it is said, even over another: that becomes a finding. */
export function moveTo(rig: Rig, id: string, at: SlotAddress, newId: () => string): Read<Plan> {
  const [patched] = lampsOf(rig, [id]);
  if (!patched) return NONE_CHOSEN;
  const length = blocksOf(patched.mode)[0]!;
  if (at.channel + length - 1 > SLOTS)
    return refuse(
      `Lamp ${patched.lamp.number} takes ${length} channels: in universe ${at.universe} it can begin at ${SLOTS - length + 1} at the latest.`,
    );
  return read(
    moved(
      rig,
      [patched.lamp],
      [[at, ...patched.lamp.blocks]],
      `Moved lamp ${patched.lamp.number} to ${formatAddress(at)}`,
      newId,
    ),
  );
}

/** Moves lamps by a number of channels, forward or back, through universes' ends. */
export function shift(rig: Rig, ids: readonly string[], by: number, newId: () => string): Read<Plan> {
  const lamps = lampsOf(rig, ids);
  if (lamps.length === 0) return NONE_CHOSEN;
  const places: SlotAddress[][] = [];
  for (const { lamp, mode } of lamps) {
    const lengths = blocksOf(mode);
    const addresses: SlotAddress[] = [];
    for (const [i, address] of addressesOf(lamp).entries()) {
      const to = fromAbsolute(toAbsolute(address) + by);
      if (!to.ok) return refuse(`Lamp ${lamp.number} would be moved to before 1/1 or beyond the last universe.`);
      if (to.value.channel + (lengths[i] ?? 1) - 1 > SLOTS)
        return refuse(`Lamp ${lamp.number} would be cut by the end of universe ${to.value.universe}.`);
      addresses.push(to.value);
    }
    places.push(addresses);
  }
  const way = by < 0 ? 'back' : 'on';
  return read(
    moved(
      rig,
      lamps.map(({ lamp }) => lamp),
      places,
      `Moved ${countOf(lamps.length, 'lamp')} ${countOf(Math.abs(by), 'channel')} ${way}`,
      newId,
    ),
  );
}

/** Copies of lamps at the next free addresses, numbered from `numberFrom` on. */
export function copyLamps(
  rig: Rig,
  ids: readonly string[],
  numberFrom: number,
  place: PlaceRequest,
  newId: () => string,
): Read<Plan> {
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
    return { ...lamp, id: newId(), rev: 0, number, ...placedAt(places.value[i]!), twin: null, x: lamp.x + 0.5 };
  });
  const universes = missingUniverses(
    rig.records,
    places.value.flat().map(({ universe }) => universe),
    newId,
  );
  return read({
    sentence: `Copied ${countOf(lamps.length, 'lamp')}`,
    changes: [...universes.changes, ...copies.map((lamp) => added('lamp', lamp))],
    lines: [
      ...universes.lines,
      ...copies.map((lamp, i) => ({
        subject: lampName(lamp),
        before: `copy of ${lamps[i]!.lamp.number}`,
        after: formatAll(addressesOf(lamp)),
      })),
    ],
  });
}

/**
 * Another mode for lamps of one type. With `follow` they are addressed anew one after the other from the
 * first one's address, in the order of their addresses; without it each stays where it begins.
 */
export function changeMode(
  rig: Rig,
  ids: readonly string[],
  modeName: string,
  follow: boolean,
  newId: () => string,
): Read<Plan> {
  const lamps = lampsOf(rig, ids).sort((a, b) => a.lamp.universe - b.lamp.universe || a.lamp.channel - b.lamp.channel);
  const [first] = lamps;
  if (!first) return NONE_CHOSEN;
  const odd = lamps.find(({ type }) => !type.modes.some(({ name }) => name === modeName));
  if (odd)
    return refuse(`${odd.type.maker} ${odd.type.name}, which lamp ${odd.lamp.number} is, has no mode “${modeName}”.`);
  const lengths = lamps.map(({ type }) => blocksOf(type.modes.find(({ name }) => name === modeName)!));
  const occupancy = new Occupancy(rig.patch, new Set(ids));
  const places: SlotAddress[][] = [];
  if (follow) {
    const start = { universe: first.lamp.universe, channel: first.lamp.channel };
    const found = placeAll(occupancy, lengths, { how: 'from', start, gap: 0 });
    if (!found.ok) return found;
    places.push(...found.value);
  } else {
    for (const [i, { lamp }] of lamps.entries()) {
      const there = addressesOf(lamp).slice(0, lengths[i]!.length);
      const missing = lengths[i]!.slice(there.length);
      const found = placeAll(occupancy, [missing], {
        how: 'gaps',
        start: { universe: lamp.universe, channel: 1 },
        gap: 0,
      });
      if (!found.ok) return found;
      places.push([...there, ...found.value[0]!]);
    }
  }
  const plan = moved(
    rig,
    lamps.map(({ lamp }) => lamp),
    places,
    `Changed ${countOf(lamps.length, 'lamp')} to ${modeName}`,
    newId,
    (lamp) => ({ ...lamp, mode: modeName }),
  );
  const lines = plan.lines.map((line) => {
    const patched = lamps.find(({ lamp }) => lampName(lamp) === line.subject);
    return patched
      ? { ...line, before: `${patched.mode.name}, ${line.before}`, after: `${modeName}, ${line.after}` }
      : line;
  });
  return read({ ...plan, lines });
}

/** Changes that leave addresses alone; lines say the part that changes. */
function altered(
  rig: Rig,
  ids: readonly string[],
  sentence: (count: number) => string,
  alter: (lamp: Lamp, i: number) => Lamp,
  said: (lamp: Lamp) => string,
): Read<Plan> {
  const lamps = lampsOf(rig, ids).map(({ lamp }) => lamp);
  if (lamps.length === 0) return NONE_CHOSEN;
  const pairs = lamps.map((lamp, i) => [lamp, alter(lamp, i)] as const);
  return read({
    sentence: sentence(lamps.length),
    changes: pairs.map(([before, after]) => changed('lamp', before, after)),
    lines: pairs.map(([before, after]): PlanLine => ({
      subject: lampName(before),
      before: said(before),
      after: said(after),
    })),
  });
}

export function renumber(rig: Rig, ids: readonly string[], from: number, step: number): Read<Plan> {
  if (!Number.isInteger(from) || from < 1 || !Number.isInteger(step) || step < 1)
    return refuse('Numbers begin at 1 or above and rise by 1 or more.');
  return altered(
    rig,
    ids,
    (count) => `Renumbered ${countOf(count, 'lamp')} from ${from} on`,
    (lamp, i) => ({ ...lamp, number: from + i * step }),
    ({ number }) => String(number),
  );
}

export function rename(rig: Rig, ids: readonly string[], pattern: string, from: number): Read<Plan> {
  if (pattern.trim() === '') return refuse('Give a name, as in “Port spot #”; # is the running number.');
  return altered(
    rig,
    ids,
    (count) => `Renamed ${countOf(count, 'lamp')}`,
    (lamp, i) => ({ ...lamp, name: nameFrom(pattern.trim(), from + i) }),
    ({ name }) => name,
  );
}

export const setTag = (rig: Rig, ids: readonly string[], tag: Tag): Read<Plan> =>
  altered(
    rig,
    ids,
    (count) => (tag === '' ? `Took the tag off ${countOf(count, 'lamp')}` : `Tagged ${countOf(count, 'lamp')} ${tag}`),
    (lamp) => ({ ...lamp, tag }),
    (lamp) => lamp.tag || 'no tag',
  );

/** Puts lamps into a group, or takes them out. */
export function setGroup(rig: Rig, ids: readonly string[], group: string, within: boolean): Read<Plan> {
  const name = group.trim();
  if (name === '') return refuse('Give the group a name.');
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

export const setPlace = (rig: Rig, ids: readonly string[], placeId: string | null): Read<Plan> => {
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
export function moveToNewPlace(rig: Rig, ids: readonly string[], name: string, newId: () => string): Read<Plan> {
  const { place } = rig.records;
  const wanted = name.trim();
  const there = place.find((one) => one.name === wanted);
  if (there) return setPlace(rig, ids, there.id);
  const order = place.reduce((most, one) => Math.max(most, one.order), 0) + 1;
  const made: Place = { id: newId(), rev: 0, name: wanted, order };
  const records = { ...rig.records, place: [...place, made] };
  const moved = setPlace({ ...rig, records }, ids, made.id);
  return moved.ok ? read({ ...moved.value, changes: [added('place', made), ...moved.value.changes] }) : moved;
}

export function removeLamps(rig: Rig, ids: readonly string[]): Read<Plan> {
  const lamps = lampsOf(rig, ids).map(({ lamp }) => lamp);
  if (lamps.length === 0) return NONE_CHOSEN;
  return read({
    sentence: `Removed ${countOf(lamps.length, 'lamp')}`,
    changes: lamps.map((lamp) => removed('lamp', lamp)),
    lines: lamps.map((lamp) => ({ subject: lampName(lamp), before: formatAll(addressesOf(lamp)), after: '' })),
  });
}

/** Declares lamps twins: all at the first one's address, on purpose. They must be alike in their slots. */
export function makeTwins(rig: Rig, ids: readonly string[], newId: () => string): Read<Plan> {
  const lamps = lampsOf(rig, ids);
  const [first] = lamps;
  if (!first || lamps.length < 2) return refuse('Twins are two lamps or more.');
  const shape = blocksOf(first.mode).join();
  const odd = lamps.find(({ mode }) => blocksOf(mode).join() !== shape);
  if (odd)
    return refuse(
      `Lamps ${first.lamp.number} and ${odd.lamp.number} take different numbers of channels, so they cannot be twins.`,
    );
  const twin = first.lamp.twin ?? newId();
  return read(
    moved(
      rig,
      lamps.map(({ lamp }) => lamp),
      lamps.map(() => addressesOf(first.lamp)),
      `Made lamps ${lamps.map(({ lamp }) => lamp.number).join(', ')} twins`,
      newId,
      (lamp) => ({ ...lamp, twin }),
    ),
  );
}

export const partTwins = (rig: Rig, ids: readonly string[]): Read<Plan> =>
  altered(
    rig,
    ids,
    (count) => `Made ${countOf(count, 'lamp')} no twin any more`,
    (lamp) => ({ ...lamp, twin: null }),
    ({ twin }) => (twin === null ? 'no twin' : 'twin'),
  );

/** Moves the lamps of a universe together so that nothing is free between them; twins stay together. */
export function closeGaps(rig: Rig, universe: number, newId: () => string): Read<Plan> {
  const spans = rig.patch.universe(universe).filter(({ patched }) => !patched.run);
  const runs = rig.patch.universe(universe).filter(({ patched }) => patched.run);
  const fixed = new Set(runs.flatMap(({ channel, length }) => Array.from({ length }, (_, i) => channel + i)));
  const to = new Map<Lamp, SlotAddress[]>();
  const ofTwins = new Map<string, number>();
  let next = 1;
  for (const { patched, block, length } of spans) {
    const { lamp } = patched;
    const twinKey = lamp.twin === null ? '' : `${lamp.twin} ${block}`;
    const shared = twinKey === '' ? undefined : ofTwins.get(twinKey);
    let channel = shared ?? next;
    if (shared === undefined) {
      for (let i = 0; i < length; i += 1)
        if (fixed.has(channel + i)) {
          channel += i + 1;
          i = -1;
        }
      next = channel + length;
      if (twinKey !== '') ofTwins.set(twinKey, channel);
    }
    if (channel + length - 1 > SLOTS)
      return refuse(`Universe ${universe} has no room: its lamps overlap. Mend that first.`);
    const addresses = to.get(lamp) ?? addressesOf(lamp);
    addresses[block - 1] = { universe, channel };
    to.set(lamp, addresses);
  }
  const movedLamps = [...to].filter(([lamp, addresses]) => formatAll(addressesOf(lamp)) !== formatAll(addresses));
  if (movedLamps.length === 0) return refuse(`Universe ${universe} has no gaps between its lamps.`);
  return read(
    moved(
      rig,
      movedLamps.map(([lamp]) => lamp),
      movedLamps.map(([, addresses]) => addresses),
      `Closed the gaps in universe ${universe}`,
      newId,
    ),
  );
}
