/** Types of which only the name is known, given a type of the show, of the library, or of a file. */
import { added, changed, countOf, removed, type Plan } from '../../show/edit';
import { blocksOf } from '../../rig/fixture';
import { lampName, Occupancy, placedAt, placesOf, type Rig } from '../../rig/patch';
import { ok, refuse, type Result } from '../../base/result';
import type { FixtureType } from '../../show/records';
import { typeName } from './types';

/** Which mode each mode by its name becomes */
export type ModeMap = Readonly<Record<string, string>>;

const folded = (text: string): string => text.normalize('NFC').trim().replace(/\s+/g, ' ').toLowerCase();

/** The types that are surely meant: of the same maker and name, with every mode that is asked for; else none. */
export function certainType(unknown: FixtureType, types: readonly FixtureType[]): FixtureType | undefined {
  const fits = types.filter(
    (type) =>
      !type.unknown &&
      folded(typeName(type)) === folded(typeName(unknown)) &&
      unknown.modes.every(({ name }) => type.modes.some((mode) => folded(mode.name) === folded(name))),
  );
  return fits.length === 1 ? fits[0] : undefined;
}

/** For each mode that is asked for, the one of a type that has its name; none where no name is the same. */
export const modesByName = (unknown: FixtureType, type: FixtureType): ModeMap =>
  Object.fromEntries(
    unknown.modes.flatMap(({ name }) => {
      const mode = type.modes.find((one) => folded(one.name) === folded(name));
      return mode ? [[name, mode.name] as const] : [];
    }),
  );

/** Gives all lamps that wait for a type the one that a person says it is; addresses stay. */
export function mapType(rig: Rig, unknown: FixtureType, type: FixtureType, modes: ModeMap): Result<Plan> {
  const lamps = rig.records.lamp.filter(({ typeId }) => typeId === unknown.id);
  const lacks = [...new Set(lamps.map(({ mode }) => mode))].find(
    (mode) => !type.modes.some(({ name }) => name === modes[mode]),
  );
  if (lacks !== undefined) return refuse('nothing', `Say which mode of ${typeName(type)} “${lacks}” is.`);
  const there = rig.records.type.some(({ id }) => id === type.id);
  const occupancy = new Occupancy(rig.patch);
  const pairs = [];
  for (const lamp of lamps) {
    const mode = type.modes.find(({ name }) => name === modes[lamp.mode])!;
    const places = placesOf(occupancy, lamp, blocksOf(mode));
    if (!places.ok) return places;
    pairs.push({ lamp, after: { ...lamp, typeId: type.id, mode: mode.name, ...placedAt(places.value) } });
  }
  return ok({
    sentence: `Gave ${countOf(lamps.length, 'lamp')} of “${unknown.name}” the type ${typeName(type)}`,
    changes: [
      ...(there ? [] : [added('type', type)]),
      ...pairs.map(({ lamp, after }) => changed('lamp', lamp, after)),
      removed('type', unknown),
    ],
    lines: pairs.map(({ lamp, after }) => ({
      subject: lampName(lamp),
      before: `${unknown.name}, ${lamp.mode}`,
      after: `${typeName(type)}, ${after.mode}`,
    })),
  });
}
