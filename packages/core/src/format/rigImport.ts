/** A rig that comes in from outside, beside the one that is there: what is new, changed, gone, or the same. */
import equal from 'fast-deep-equal';
import { formatAddress, type SlotAddress } from '../address';
import { blocksOf } from '../fixture';
import { addressesOf, formatAll, lampName, missingUniverses, Occupancy, placeAll, placedAt, type Rig } from '../patch';
import { added, changed, countOf, type Plan, type PlanLine, removed } from '../edit';
import { lightOf, type PatchDifference, patchDifferences, type PatchSide } from './patchDifferences';
import { type FixtureType, type Lamp, type Place, PLAIN_LAMP, type ShowRecords } from '../records';

/** A lamp as a file tells it; what the file does not say is undefined and stays as it is. */
export interface IncomingLamp {
  /** Its id in the file, if that has one */
  readonly id: string | undefined;
  readonly number: number;
  readonly name: string;
  readonly typeId: string;
  readonly mode: string;
  readonly addresses: readonly SlotAddress[];
  /** Name of its place; empty for none */
  readonly place?: string | undefined;
  readonly groups?: readonly string[] | undefined;
  readonly x?: number | undefined;
  readonly y?: number | undefined;
  readonly z?: number | undefined;
}

export interface Incoming {
  /** The types that the lamps need */
  readonly types: readonly FixtureType[];
  readonly lamps: readonly IncomingLamp[];
  /** What could not be taken over, in sentences */
  readonly notes: readonly string[];
  /** Name of the kept file, if its other parts are to go out again */
  readonly file: string | null;
}

export type RowState = 'added' | 'changed' | 'gone' | 'same';

export interface ImportRow {
  /** Place in the list, for choosing */
  readonly key: string;
  readonly state: RowState;
  readonly before: Lamp | undefined;
  readonly incoming: IncomingLamp | undefined;
  readonly subject: string;
  /** What differs, part by part: “mode Basic → Extended” */
  readonly says: readonly string[];
  /** How the two patches differ */
  readonly differs: readonly PatchDifference[];
  /** Levels by address that light the lamp as both sides have it; only where their patches differ */
  readonly light?: Readonly<Record<string, number>>;
}

interface Known {
  readonly types: ReadonlyMap<string, FixtureType>;
  readonly places: ReadonlyMap<string, Place>;
}

const typeName = (type: FixtureType | undefined): string => (type ? `${type.maker} ${type.name}` : 'an unknown type');

/** A type of the show that is the same as an incoming one, by id or by maker and name. */
function sameType(records: ShowRecords, type: FixtureType): FixtureType | undefined {
  return records.type.find(({ id }) => id === type.id) ?? records.type.find((one) => typeName(one) === typeName(type));
}

function differences(before: Lamp, lamp: IncomingLamp, typeId: string, known: Known): string[] {
  const says: string[] = [];
  const say = (what: string, was: string, is: string) =>
    was !== is && says.push(`${what} ${was || 'none'} → ${is || 'none'}`);
  say('number', String(before.number), String(lamp.number));
  say('name', before.name, lamp.name);
  if (before.typeId !== typeId)
    say('type', typeName(known.types.get(before.typeId)), typeName(known.types.get(typeId)));
  say('mode', before.mode, lamp.mode);
  if (lamp.addresses.length > 0) say('address', formatAll(addressesOf(before)), formatAll(lamp.addresses));
  if (lamp.place !== undefined) say('place', known.places.get(before.placeId ?? '')?.name ?? '', lamp.place);
  if (lamp.groups !== undefined) say('groups', before.groups.join(', '), lamp.groups.join(', '));
  for (const axis of ['x', 'y', 'z'] as const) {
    const is = lamp[axis];
    if (is !== undefined && Math.abs(is - before[axis]) > 0.0005) say(axis, `${before[axis]} m`, `${is} m`);
  }
  return says;
}

/** A lamp as the show and as the file have it patched. */
function sidesOf(before: Lamp, lamp: IncomingLamp, { types }: Known): readonly [PatchSide, PatchSide] {
  const mode = (typeId: string, name: string) => types.get(typeId)?.modes.find((one) => one.name === name);
  const here = { mode: mode(before.typeId, before.mode), addresses: addressesOf(before) };
  const there = lamp.addresses.length > 0 ? lamp.addresses : here.addresses;
  return [here, { mode: mode(lamp.typeId, lamp.mode), addresses: there }];
}

/** Joins incoming lamps with those that are there: by number, then by name and type. */
export function compareRig({ records }: Rig, incoming: Incoming): ImportRow[] {
  const typeOf = new Map(incoming.types.map((type) => [type.id, sameType(records, type) ?? type]));
  const known: Known = {
    types: new Map([...incoming.types, ...records.type].map((type) => [type.id, type])),
    places: new Map(records.place.map((place) => [place.id, place])),
  };
  const left = new Set(records.lamp);
  const byNumber = new Map(records.lamp.map((lamp) => [lamp.number, lamp]));
  const byName = new Map(records.lamp.map((lamp) => [`${lamp.typeId} ${lamp.name}`, lamp]));
  const rows: ImportRow[] = [];
  const matches = incoming.lamps.map((lamp) => {
    const found = byNumber.get(lamp.number);
    if (!found || !left.has(found)) return undefined;
    left.delete(found);
    return found;
  });
  incoming.lamps.forEach((lamp, i) => {
    const typeId = typeOf.get(lamp.typeId)?.id ?? lamp.typeId;
    let before = matches[i];
    if (!before) {
      const named = byName.get(`${typeId} ${lamp.name}`);
      if (named && left.has(named)) {
        left.delete(named);
        before = named;
      }
    }
    const says = before ? differences(before, lamp, typeId, known) : [];
    const sides = before && sidesOf(before, { ...lamp, typeId }, known);
    const differs = sides ? patchDifferences(...sides) : [];
    rows.push({
      key: `in ${i}`,
      state: !before ? 'added' : says.length > 0 ? 'changed' : 'same',
      before,
      incoming: { ...lamp, typeId },
      subject: `${lamp.number} ${lamp.name}`,
      says: before ? says : [`at ${formatAll(lamp.addresses) || 'no address'}`],
      differs,
      ...(sides && differs.length > 0 && { light: { ...lightOf(sides[0]), ...lightOf(sides[1]) } }),
    });
  });
  for (const lamp of left)
    rows.push({
      key: `out ${lamp.id}`,
      state: 'gone',
      before: lamp,
      incoming: undefined,
      subject: lampName(lamp),
      says: [`at ${formatAddress(lamp)}`],
      differs: [],
    });
  const numberOf = ({ before, incoming: lamp }: ImportRow) => (lamp ?? before)!.number;
  return rows.sort((a, b) => numberOf(a) - numberOf(b));
}

/** What taking over the chosen rows would write. Types and places that they need come along. */
export function planImport(
  rig: Rig,
  incoming: Incoming,
  rows: readonly ImportRow[],
  sentence: string,
  newId: () => string,
): Plan {
  const { records } = rig;
  const changes: Plan['changes'][number][] = [];
  const lines: PlanLine[] = [];
  const used = new Set(rows.flatMap((row) => row.incoming?.typeId ?? []));
  const types = new Map(records.type.map((type) => [type.id, type]));
  for (const type of incoming.types) {
    const there = sameType(records, type);
    if (!there) {
      if (!used.has(type.id)) continue;
      types.set(type.id, type);
      changes.push(added('type', type));
      lines.push({ subject: typeName(type), before: '', after: `type with ${countOf(type.modes.length, 'mode')}` });
    } else if (used.has(there.id)) {
      // A type that is there keeps its modes; those that it lacks come along.
      const more = type.modes.filter((mode) => !there.modes.some(({ name }) => name === mode.name));
      const next = { ...there, modes: [...there.modes, ...more], file: there.file ?? type.file };
      if (equal(next, there)) continue;
      types.set(there.id, next);
      changes.push(changed('type', there, next));
      if (more.length > 0)
        lines.push({
          subject: typeName(there),
          before: countOf(there.modes.length, 'mode'),
          after: countOf(next.modes.length, 'mode'),
        });
    }
  }
  const places = new Map(records.place.map((place) => [place.name, place.id]));
  const placeOf = (name: string): string | null => {
    if (name === '') return null;
    const there = places.get(name);
    if (there) return there;
    const place: Place = { id: newId(), rev: 0, name, order: records.place.length + places.size + 1 };
    places.set(name, place.id);
    changes.push(added('place', place));
    lines.push({ subject: name, before: '', after: 'a place' });
    return place.id;
  };
  const gone = new Set(rows.filter(({ state }) => state === 'gone').map(({ before }) => before!.id));
  const occupancy = new Occupancy(rig.patch, gone);
  const lampChanges: Plan['changes'][number][] = [];
  const universes = new Set<number>();
  for (const { state, before, incoming: lamp, subject, says } of rows) {
    if (state === 'same') continue;
    if (!lamp) {
      lampChanges.push(removed('lamp', before!));
      lines.push({ subject, before: formatAddress(before!), after: '' });
      continue;
    }
    const mode = types.get(lamp.typeId)?.modes.find(({ name }) => name === lamp.mode);
    const lengths = mode ? blocksOf(mode) : [1];
    let addresses = lamp.addresses.length > 0 ? lamp.addresses : before ? addressesOf(before) : [];
    if (addresses.length < lengths.length) {
      const found = placeAll(occupancy, [lengths.slice(addresses.length)], {
        how: 'gaps',
        start: { universe: addresses[0]?.universe ?? 1, channel: 1 },
        gap: 0,
      });
      if (found.ok) addresses = [...addresses, ...found.value[0]!];
    }
    addresses.forEach((at, i) => occupancy.claim(at, Math.min(lengths[i] ?? 1, 513 - at.channel)));
    addresses.forEach(({ universe }) => universes.add(universe));
    const base: Omit<Lamp, 'typeId' | 'mode' | 'number' | 'name' | 'universe' | 'channel'> = before ?? {
      ...PLAIN_LAMP,
      id: lamp.id !== undefined && !records.lamp.some(({ id }) => id === lamp.id) ? lamp.id : newId(),
      rev: 0,
    };
    const after: Lamp = {
      ...base,
      number: lamp.number,
      name: lamp.name,
      typeId: lamp.typeId,
      mode: lamp.mode,
      ...placedAt(addresses),
      placeId: lamp.place === undefined ? base.placeId : placeOf(lamp.place),
      groups: lamp.groups ?? base.groups,
      x: lamp.x ?? base.x,
      y: lamp.y ?? base.y,
      z: lamp.z ?? base.z,
    };
    lampChanges.push(before ? changed('lamp', before, after) : added('lamp', after));
    lines.push({ subject, before: '', after: says.join('; ') });
  }
  const missing = missingUniverses(records, universes, newId);
  const [show] = records.show;
  const keep =
    incoming.file !== null && show && show.file !== incoming.file
      ? [changed('show', show, { ...show, file: incoming.file })]
      : [];
  return {
    sentence,
    changes: [...keep, ...changes, ...missing.changes, ...lampChanges],
    lines: [...missing.lines, ...lines],
  };
}
