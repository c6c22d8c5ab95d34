/** What a person says of an arrival: which types its unknown ones are. Kept, so that the next version asks only what is new. */
import { footprintOf } from '../../rig/fixture';
import type { FixtureType } from '../../show/records';
import type { Incoming, IncomingLamp } from './incoming';
import { certainType, modesByName, type ModeMap } from './mapType';
import { typeName } from './types';
import { NO_MAKER } from './unknownType';

/** Which type an unknown one is, and which mode each of its modes */
export interface TypeChoice {
  readonly typeId: string;
  readonly modes: ModeMap;
}
/** By what the file calls the type: `typeKey` */
export type TypeChoices = Readonly<Record<string, TypeChoice>>;

/** A type of which a file says the name only, what it is taken for, and what is not said yet. */
export interface UnknownType {
  readonly key: string;
  readonly name: string;
  readonly modes: readonly string[];
  readonly lamps: number;
  /** Empty while nobody has said, and it is not certain */
  readonly typeId: string;
  readonly modeFor: ModeMap;
  /** Whether a type and all modes are said, so that its lamps are of it */
  readonly settled: boolean;
  /** Types that have a name or a size in common with it, the likeliest first: to choose from, never taken by themselves */
  readonly like: readonly string[];
}

export const typeKey = (type: Pick<FixtureType, 'maker' | 'name'>): string => typeName(type as FixtureType);

const words = (text: string): string[] =>
  text
    .normalize('NFKC')
    .toLowerCase()
    .match(/[\p{L}\p{N}]+/gu) ?? [];

/** How alike two names are: shared words, weighed by their length. */
function likeness(unknown: FixtureType, type: FixtureType): number {
  const own = new Set(words(typeName(unknown)));
  const shared = words(typeName(type)).filter((word) => own.has(word));
  const sizes = unknown.modes.flatMap(({ name }) => name.match(/\d+/g)?.map(Number) ?? []);
  const sized = type.modes.some((mode) => sizes.includes(footprintOf(mode)));
  return shared.reduce((sum, { length }) => sum + length, 0) + (sized ? 1 : 0);
}

const MOST_LIKE = 5;

/** Lamps of unknown types given those that are certain or that a person has said; the rest is told. */
export function settleTypes<I extends Incoming>(
  incoming: I,
  types: readonly FixtureType[],
  choices: TypeChoices,
): { incoming: I; unknown: UnknownType[] } {
  const lampsOf = new Map<string, number>();
  for (const { typeId } of incoming.lamps) lampsOf.set(typeId, (lampsOf.get(typeId) ?? 0) + 1);
  const notes: string[] = [];
  const unknown: UnknownType[] = [];
  const settled = new Map<string, { type: FixtureType; modes: ModeMap }>();
  for (const type of incoming.types) {
    if (!type.unknown) continue;
    const key = typeKey(type);
    const said = choices[key];
    const certain = said ? undefined : certainType(type, types);
    const found = said ? types.find(({ id }) => id === said.typeId) : certain;
    const modeFor = { ...(found && modesByName(type, found)), ...said?.modes };
    const all = found && type.modes.every(({ name }) => found.modes.some((mode) => mode.name === modeFor[name]));
    if (found && all) settled.set(type.id, { type: found, modes: modeFor });
    if (found && all && certain) {
      notes.push(`“${typeName(type)}” is taken to be the one that is here, which has its name and modes.`);
      continue;
    }
    unknown.push({
      key,
      name: type.maker === NO_MAKER ? type.name : typeName(type),
      modes: type.modes.map(({ name }) => name),
      lamps: lampsOf.get(type.id) ?? 0,
      typeId: found?.id ?? '',
      modeFor,
      settled: all === true,
      like: types
        .filter((one) => !one.unknown)
        .map((one) => ({ id: one.id, score: likeness(type, one) }))
        .filter(({ score }) => score > 0)
        .sort((a, b) => b.score - a.score)
        .slice(0, MOST_LIKE)
        .map(({ id }) => id),
    });
  }
  if (settled.size === 0) return { incoming, unknown };
  const lamps = incoming.lamps.map((lamp): IncomingLamp => {
    const found = settled.get(lamp.typeId);
    return found ? { ...lamp, typeId: found.type.id, mode: found.modes[lamp.mode]! } : lamp;
  });
  const used = new Map([...settled.values()].map(({ type }) => [type.id, type]));
  const kept = incoming.types.filter(({ id }) => !settled.has(id) && !used.has(id));
  const all = { lamps, types: [...kept, ...used.values()], notes: [...incoming.notes, ...notes] };
  return { incoming: { ...incoming, ...all }, unknown };
}
