/** What taking over rows of an arrival would write, as one edit. */
import equal from 'fast-deep-equal';
import { isAddressed, NO_ADDRESS, type SlotAddress } from '../../base/address';
import { added, changed, countOf, removed, type Plan, type PlanLine } from '../../show/edit';
import { blocksOf } from '../../rig/fixture';
import {
  addressesOf,
  changeType,
  consequences,
  formatAll,
  lampName,
  missingUniverses,
  Occupancy,
  placedAt,
  placesOf,
  type Rig,
} from '../../rig/patch';
import {
  type FixtureType,
  type Lamp,
  type PixelRun,
  type Place,
  PLAIN_LAMP,
  type ShowRecords,
} from '../../show/records';
import { addressesIn, besideShow, SAID_AS, type ImportRow, type LampRow, type RunRow, type TypeRow } from './compare';
import { isGuid } from './guid';
import { SAID, type Incoming, type IncomingLamp, type IncomingRun } from './incoming';
import type { FieldChange } from './modeChanges';
import { mergedType, sameType, typeName } from './types';

type Changes = Plan['changes'][number][];

/** A change in words: “mode Basic → Extended” */
export const fieldText = ({ field, was, is }: FieldChange): string => `${field} ${was || 'none'} → ${is || 'none'}`;

/** The types as they would be, by the id that incoming lamps use, and the changes that make them so. */
function planTypes(
  rig: Rig,
  incoming: Incoming,
  rows: readonly ImportRow[],
): { types: Map<string, FixtureType>; changes: Changes; lines: PlanLine[] } {
  const { records } = rig;
  const changes: Changes = [];
  const lines: PlanLine[] = [];
  const lampRows = rows.filter((row): row is LampRow => row.kind === 'lamp');
  const chosen = new Set(rows.filter((row): row is TypeRow => row.kind === 'type').map(({ type }) => type.id));
  const types = new Map(records.type.map((type) => [type.id, type]));
  for (const type of incoming.types) {
    const there = sameType(records, type);
    const wanted = new Set(
      lampRows.flatMap(({ incoming: lamp }) => (lamp?.typeId === (there?.id ?? type.id) ? [lamp.mode] : [])),
    );
    if (!there) {
      if (wanted.size === 0 && !chosen.has(type.id)) continue;
      types.set(type.id, type);
      changes.push(added('type', type));
      lines.push({
        subject: typeName(type),
        before: '',
        after: type.unknown
          ? 'a type of which only the name is known'
          : `type with ${countOf(type.modes.length, 'mode')}`,
      });
      continue;
    }
    // A mode that a lamp needs and the show lacks comes along, whatever else of the type is left as it is.
    const more = type.modes.filter(
      (mode) => wanted.has(mode.name) && !there.modes.some(({ name }) => name === mode.name),
    );
    const next = chosen.has(type.id) ? mergedType(there, type) : { ...there, modes: [...there.modes, ...more] };
    if (equal(next, there)) continue;
    types.set(there.id, next);
    const plan = changeType(rig, next, new Map());
    if (plan.ok) {
      changes.push(...plan.value.changes);
      lines.push(...plan.value.lines);
    } else changes.push(changed('type', there, next));
  }
  return { types, changes, lines };
}

/** An incoming lamp over the one that is there, without the fields that are to stay as they are. */
function without(lamp: IncomingLamp, before: Lamp | undefined, leave: ReadonlySet<string>): IncomingLamp {
  if (!before || leave.size === 0) return lamp;
  const keep = <T>(field: string, is: T, was: T): T => (leave.has(field) ? was : is);
  const typeStays = leave.has('type');
  return {
    ...lamp,
    number: keep('number', lamp.number, before.number),
    name: keep('name', lamp.name, before.name),
    typeId: keep('type', lamp.typeId, before.typeId),
    // A mode belongs to its type: where that stays, so does the mode.
    mode: typeStays && lamp.typeId !== before.typeId ? before.mode : keep('mode', lamp.mode, before.mode),
    addresses: keep('address', lamp.addresses, undefined),
    place: keep('place', lamp.place, undefined),
    groups: keep('groups', lamp.groups, undefined),
    x: keep('x', lamp.x, undefined),
    y: keep('y', lamp.y, undefined),
    z: keep('z', lamp.z, undefined),
    ...Object.fromEntries(SAID.map((field) => [field, keep(SAID_AS[field], lamp[field], undefined)])),
  };
}

/** Addresses that the file says, else those that are there; blocks that have none yet get the first free places. */
function addressesFor(
  occupancy: Occupancy,
  lamp: IncomingLamp,
  before: Lamp | undefined,
  lengths: readonly number[],
): readonly SlotAddress[] {
  const all = lamp.addresses ?? (before ? addressesOf(before) : []);
  const said = before ? addressesIn(all, before) : all;
  if (!said.some(isAddressed)) return lengths.map(() => NO_ADDRESS);
  const found = placesOf(occupancy, { ...PLAIN_LAMP, ...placedAt(said) } as Lamp, lengths);
  return found.ok ? found.value : said;
}

export interface ImportRequest {
  readonly incoming: Incoming;
  /** Those that are chosen */
  readonly rows: readonly ImportRow[];
  readonly sentence: string;
  /** Fields that stay as they are in lamps that are there already */
  readonly leave?: ReadonlySet<string>;
}

/** A run as it can stand in this show: without its controller it begins at the address that it had. */
function runFrom(
  { run, addresses }: IncomingRun,
  { machine }: ShowRecords,
  id: string,
  placeId: string | null,
): PixelRun {
  const [first] = addresses;
  if (machine.some((one) => one.id === run.machineId) || !first) return { ...run, id, rev: 0, placeId };
  return { ...run, id, rev: 0, placeId, machineId: null, output: null, start: { kind: 'at', ...first } };
}

/** What taking over the chosen rows would write. Types and places that they need come along. */
export function planImport(
  rig: Rig,
  { incoming: all, rows, sentence, leave = new Set() }: ImportRequest,
  newId: () => string,
): Plan {
  const { records } = rig;
  const incoming = besideShow(records, all);
  const { types, changes, lines } = planTypes(rig, incoming, rows);
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
  const lampRows = rows.filter((row): row is LampRow => row.kind === 'lamp');
  const gone = new Set(lampRows.filter(({ state }) => state === 'gone').map(({ before }) => before!.id));
  const occupancy = new Occupancy(rig.patch, gone);
  const ids = new Set([...records.lamp, ...records.run].map(({ id }) => id));
  const lampChanges: Changes = [];
  const universes = new Set<number>();
  for (const { state, before, incoming: whole, subject, fields } of lampRows) {
    if (!whole) {
      lampChanges.push(removed('lamp', before!));
      lines.push({ subject, before: formatAll(addressesOf(before!)), after: '' });
      continue;
    }
    const learnt = before && whole.uuid && before.uuid !== whole.uuid ? whole.uuid : undefined;
    if (state === 'same') {
      // Nothing of it differs; by which id the file knows it is worth keeping.
      if (learnt !== undefined) lampChanges.push(changed('lamp', before!, { ...before!, uuid: learnt }));
      continue;
    }
    const lamp = without(whole, before, leave);
    const type = types.get(lamp.typeId);
    const mode = type?.modes.find(({ name }) => name === lamp.mode);
    const addresses = addressesFor(occupancy, lamp, before, mode ? blocksOf(mode) : [1]);
    addresses.forEach((at, i) => {
      if (!isAddressed(at)) return;
      occupancy.claim(at, Math.min((mode && blocksOf(mode)[i]) ?? 1, 513 - at.channel));
      universes.add(at.universe);
    });
    const uuid = whole.uuid ?? '';
    const own = isGuid(uuid) && !ids.has(uuid) ? uuid : newId();
    if (!before) ids.add(own);
    const base = before ?? { ...PLAIN_LAMP, id: own, rev: 0 };
    const after: Lamp = {
      ...base,
      number: lamp.number,
      name: lamp.name,
      typeId: type?.id ?? lamp.typeId,
      mode: lamp.mode,
      ...placedAt(addresses),
      placeId: lamp.place === undefined ? base.placeId : placeOf(lamp.place),
      groups: lamp.groups ?? base.groups,
      uuid: uuid || base.uuid,
      x: lamp.x ?? base.x,
      y: lamp.y ?? base.y,
      z: lamp.z ?? base.z,
    };
    const said = Object.fromEntries(SAID.map((field) => [field, lamp[field] ?? base[field]]));
    const full: Lamp = { ...after, ...said };
    if (before && equal(before, full)) continue;
    lampChanges.push(before ? changed('lamp', before, full) : added('lamp', full));
    const told = fields.filter(({ field }) => !leave.has(field));
    lines.push({
      subject: before ? lampName(before) : subject,
      before: '',
      after: before ? told.map(fieldText).join('; ') : `new, ${formatAll(addresses)}`,
    });
  }
  for (const { incoming: coming, subject } of rows.filter((row): row is RunRow => row.kind === 'run')) {
    const run = runFrom(coming, records, ids.has(coming.run.id) ? newId() : coming.run.id, placeOf(coming.place));
    for (const { universe } of coming.addresses) universes.add(universe);
    lampChanges.push(added('run', run));
    lines.push({ subject, before: '', after: `new, ${countOf(run.count, 'pixel')}` });
  }
  const missing = missingUniverses(records, universes, newId);
  const [show] = records.show;
  const keep =
    incoming.file !== null && show && show.file !== incoming.file
      ? [changed('show', show, { ...show, file: incoming.file })]
      : [];
  const written = [...keep, ...changes, ...missing.changes, ...lampChanges];
  return { sentence, changes: onceEach(written), lines: [...missing.lines, ...lines] };
}

/** A lamp that follows its type and is changed itself is written once, as the latter. */
function onceEach(changes: Changes): Changes {
  const last = new Map(changes.map((change) => [`${change.kind} ${change.id}`, change]));
  return [...last.values()];
}

/** Faults that a plan would bring: overlaps, what runs past a universe’s end, numbers that two share. */
export const consequencesOf = (rig: Rig, plan: Plan): string[] =>
  consequences(rig, plan).brings.map(({ sentence }) => sentence);
