/** A rig that comes in from outside, beside the one that is there: what is new, changed, gone, or the same. */
import { formatAddress, isAddressed, NO_ADDRESS, type SlotAddress } from '../../base/address';
import { countOf } from '../../show/edit';
import { addressesOf, formatAll, lampName, type Rig } from '../../rig/patch';
import type { FixtureType, Lamp, Place, ShowRecords } from '../../show/records';
import { guidOf } from './guid';
import { SAID, type Incoming, type IncomingLamp, type IncomingRun, type Said } from './incoming';
import { typeChanges, type FieldChange } from './modeChanges';
import { lightOf, type PatchDifference, patchDifferences, type PatchSide } from './patchDifferences';
import { mergedType, sameType, typeName, underFreeId } from './types';

export type RowState = 'added' | 'changed' | 'gone' | 'same';

interface RowOf {
  /** Place in the list, for choosing */
  readonly key: string;
  readonly state: RowState;
  readonly subject: string;
  /** What differs, field by field; of what is new, where it is */
  readonly fields: readonly FieldChange[];
}

export interface LampRow extends RowOf {
  readonly kind: 'lamp';
  readonly before: Lamp | undefined;
  readonly incoming: IncomingLamp | undefined;
  /** How the two patches differ */
  readonly differs: readonly PatchDifference[];
  /** Levels by address that light the lamp as both sides have it; only where their patches differ */
  readonly light?: Readonly<Record<string, number>>;
}

export interface TypeRow extends RowOf {
  readonly kind: 'type';
  readonly before: FixtureType | undefined;
  readonly type: FixtureType;
}

export interface RunRow extends RowOf {
  readonly kind: 'run';
  readonly incoming: IncomingRun;
}

export type ImportRow = LampRow | TypeRow | RunRow;

interface Known {
  readonly types: ReadonlyMap<string, FixtureType>;
  readonly places: ReadonlyMap<string, Place>;
}

export const SAID_AS: Readonly<Record<Said, string>> = {
  written: 'number as written',
  unit: 'unit number',
  position: 'hanging position',
  class: 'class',
  function: 'function',
  gel: 'gel',
  circuit: 'circuit',
  notes: 'notes',
};

/** Names of what can differ between a lamp and what arrives, in the order in which they are told. */
export const LAMP_FIELDS = [
  'number',
  'name',
  'type',
  'mode',
  'address',
  'place',
  'groups',
  ...Object.values(SAID_AS),
  'x',
  'y',
  'z',
] as const;

/** A millimetre is no difference. */
const NEAR = 0.0005;

function differences(before: Lamp, lamp: IncomingLamp, typeId: string, known: Known): FieldChange[] {
  const fields: FieldChange[] = [];
  const say = (field: string, was: string, is: string) => was !== is && fields.push({ field, was, is });
  say('number', String(before.number), String(lamp.number));
  say('name', before.name, lamp.name);
  if (before.typeId !== typeId)
    say('type', typeName(known.types.get(before.typeId)), nameBeside(known, before.typeId, typeId));
  say('mode', before.mode, lamp.mode);
  if (lamp.addresses !== undefined)
    say('address', formatAll(addressesOf(before)), formatAll(addressesIn(lamp.addresses, before)));
  if (lamp.place !== undefined) say('place', known.places.get(before.placeId ?? '')?.name ?? '', lamp.place);
  if (lamp.groups !== undefined) say('groups', before.groups.join(', '), lamp.groups.join(', '));
  for (const field of SAID) {
    const is = lamp[field];
    if (is !== undefined) say(SAID_AS[field], before[field], is);
  }
  for (const axis of ['x', 'y', 'z'] as const) {
    const is = lamp[axis];
    if (is !== undefined && Math.abs(is - before[axis]) > NEAR) say(axis, `${before[axis]} m`, `${is} m`);
  }
  return fields;
}

/** Two types of one name are told apart in a sentence. */
function nameBeside({ types }: Known, there: string, coming: string): string {
  const name = typeName(types.get(coming));
  return name === typeName(types.get(there)) ? `${name} (another)` : name;
}

/** What a file says of addresses, for as many blocks as the lamp has; those that it leaves out are as they were. */
export const addressesIn = (said: readonly SlotAddress[], before: Lamp): readonly SlotAddress[] => {
  if (!said.some(isAddressed)) return addressesOf(before).map(() => NO_ADDRESS);
  return addressesOf(before).length > said.length ? [...said, ...addressesOf(before).slice(said.length)] : said;
};

/** A lamp as the show and as the file have it patched. */
function sidesOf(before: Lamp, lamp: IncomingLamp, { types }: Known): readonly [PatchSide, PatchSide] {
  const mode = (typeId: string, name: string) => types.get(typeId)?.modes.find((one) => one.name === name);
  const here = { mode: mode(before.typeId, before.mode), addresses: addressesOf(before) };
  const there = lamp.addresses === undefined ? here.addresses : addressesIn(lamp.addresses, before);
  return [here, { mode: mode(lamp.typeId, lamp.mode), addresses: there }];
}

/**
 * Which lamp of the show each incoming one is: by its id in the file, then by its number, then by name and type. One
 * that another was joined with by something surer is not taken from it.
 */
function joined(
  lamps: readonly Lamp[],
  incoming: readonly IncomingLamp[],
  typeIdOf: (lamp: IncomingLamp) => string,
): { pairs: (Lamp | undefined)[]; left: Set<Lamp> } {
  const left = new Set(lamps);
  const pairs = new Array<Lamp | undefined>(incoming.length).fill(undefined);
  const join = (by: ReadonlyMap<string, Lamp>, key: (lamp: IncomingLamp) => string | undefined) =>
    incoming.forEach((lamp, i) => {
      const found = pairs[i] ? undefined : by.get(key(lamp) ?? '');
      if (!found || !left.has(found)) return;
      left.delete(found);
      pairs[i] = found;
    });
  join(
    new Map(lamps.flatMap((lamp) => [[guidOf(lamp.id), lamp] as const, [lamp.uuid || lamp.id, lamp] as const])),
    ({ uuid }) => uuid || undefined,
  );
  // Numbers that several share tell nobody apart.
  const once = <T>(all: readonly T[], key: (one: T) => string) => {
    const counts = new Map<string, number>();
    for (const one of all) counts.set(key(one), (counts.get(key(one)) ?? 0) + 1);
    return (one: T) => counts.get(key(one)) === 1;
  };
  const single = once(lamps, ({ number }) => String(number));
  join(new Map(lamps.filter(single).map((lamp) => [String(lamp.number), lamp])), ({ number }) => String(number));
  const called = (typeId: string, name: string) => `${typeId} ${name}`;
  const named = once(lamps, ({ typeId, name }) => called(typeId, name));
  join(new Map(lamps.filter(named).map((lamp) => [called(lamp.typeId, lamp.name), lamp])), (lamp) =>
    called(typeIdOf(lamp), lamp.name),
  );
  // Renamed, and renumbered or without a number: of the same type at the same address it is the same lamp.
  const placed = (typeId: string, address: SlotAddress | undefined) =>
    address && isAddressed(address) ? `${typeId} ${address.universe}/${address.channel}` : '';
  const alone = once([...left], (lamp) => placed(lamp.typeId, lamp));
  join(
    new Map(
      [...left]
        .filter((lamp) => isAddressed(lamp) && alone(lamp))
        .map((lamp) => [placed(lamp.typeId, lamp), lamp] as const),
    ),
    (lamp) => placed(typeIdOf(lamp), lamp.addresses?.[0]) || undefined,
  );
  // Of lamps with one number, whichever is left.
  const byNumber = new Map([...left].map((lamp) => [`${lamp.number} ${lamp.name}`, lamp]));
  join(byNumber, ({ number, name }) => `${number} ${name}`);
  return { pairs, left };
}

function typeRows(records: ShowRecords, types: readonly FixtureType[]): TypeRow[] {
  // A type that the show has already, named by what arrives, is nothing that arrives.
  const coming = types.filter((type) => !records.type.includes(type));
  return coming.map((type): TypeRow => {
    const before = sameType(records, type);
    const fields = before ? typeChanges(before, mergedType(before, type)) : [];
    const state = !before ? 'added' : fields.length > 0 ? 'changed' : 'same';
    return { kind: 'type', key: `type ${type.id}`, state, before, type, subject: typeName(type), fields };
  });
}

/** Runs of pixels go out as fixtures; where the show has the run, its fixture is no lamp. */
function withoutRuns<I extends Incoming>({ run: runs }: Pick<ShowRecords, 'run'>, incoming: I): I {
  const ids = new Set(runs.map(({ id }) => guidOf(id)));
  const lamps = incoming.lamps.filter(({ uuid }) => !uuid || !ids.has(uuid));
  const fresh = (incoming.runs ?? []).filter(({ run }) => !ids.has(guidOf(run.id)));
  const count = incoming.lamps.length - lamps.length + (incoming.runs?.length ?? 0) - fresh.length;
  if (count === 0) return incoming;
  const used = new Set(lamps.map(({ typeId }) => typeId));
  const note = `${countOf(count, 'run')} of pixels that the show has ${count === 1 ? 'is' : 'are'} in the file; ${count === 1 ? 'it stays' : 'they stay'} as the show has ${count === 1 ? 'it' : 'them'}.`;
  return {
    ...incoming,
    lamps,
    runs: fresh,
    types: incoming.types.filter(({ id }) => used.has(id)),
    notes: [...incoming.notes, note],
  };
}

/** What arrives, as it can stand beside the show: without its runs, and no type under an id that another one has there. */
export function besideShow<I extends Incoming>(records: ShowRecords, all: I): I {
  const incoming = withoutRuns(records, all);
  const ids = new Map<string, string>();
  const types = incoming.types.map((type) => {
    const made = sameType(records, type) ? type : underFreeId(records, type);
    if (made !== type) ids.set(type.id, made.id);
    return made;
  });
  if (ids.size === 0) return incoming;
  const lamps = incoming.lamps.map((lamp) => ({ ...lamp, typeId: ids.get(lamp.typeId) ?? lamp.typeId }));
  return { ...incoming, types, lamps };
}

const runRow = (coming: IncomingRun): RunRow => ({
  kind: 'run',
  key: `run ${coming.run.id}`,
  state: 'added',
  incoming: coming,
  subject: `${coming.run.number} ${coming.run.name}`,
  fields: [{ field: 'pixels', was: '', is: `${coming.run.count} at ${formatAll(coming.addresses)}` }],
});

export function compareRig({ records }: Rig, all: Incoming): ImportRow[] {
  const incoming = besideShow(records, all);
  const typeOf = new Map(incoming.types.map((type) => [type.id, sameType(records, type) ?? type]));
  const typeIdOf = ({ typeId }: IncomingLamp): string => typeOf.get(typeId)?.id ?? typeId;
  const known: Known = {
    types: new Map([...incoming.types, ...records.type].map((type) => [type.id, type])),
    places: new Map(records.place.map((place) => [place.id, place])),
  };
  const { pairs, left } = joined(records.lamp, incoming.lamps, typeIdOf);
  const rows = incoming.lamps.map((said, i): LampRow => {
    const lamp = { ...said, typeId: typeIdOf(said) };
    const before = pairs[i];
    const fields = before ? differences(before, lamp, lamp.typeId, known) : [];
    const sides = before && sidesOf(before, lamp, known);
    const differs = sides ? patchDifferences(...sides) : [];
    return {
      kind: 'lamp',
      key: `in ${i}`,
      state: !before ? 'added' : fields.length > 0 ? 'changed' : 'same',
      before,
      incoming: lamp,
      subject: `${lamp.number} ${lamp.name}`,
      fields: before ? fields : [{ field: 'address', was: '', is: formatAll(lamp.addresses ?? []) }],
      differs,
      ...(sides && differs.length > 0 && { light: { ...lightOf(sides[0]), ...lightOf(sides[1]) } }),
    };
  });
  for (const lamp of left)
    rows.push({
      kind: 'lamp',
      key: `out ${lamp.id}`,
      state: 'gone',
      before: lamp,
      incoming: undefined,
      subject: lampName(lamp),
      fields: [{ field: 'address', was: formatAddress(lamp), is: '' }],
      differs: [],
    });
  const numberOf = ({ before, incoming: lamp }: LampRow) => (lamp ?? before)!.number;
  return [
    ...typeRows(
      records,
      incoming.types.filter(({ unknown }) => !unknown),
    ),
    ...(incoming.runs ?? []).map(runRow),
    ...rows.sort((a, b) => numberOf(a) - numberOf(b)),
  ];
}
