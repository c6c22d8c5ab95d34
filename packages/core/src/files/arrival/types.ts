/** Types that arrive, beside those of the show: which is which, and what would be written of them. */
import equal from 'fast-deep-equal';
import type { FixtureType, ShowRecords } from '../../show/records';
import { guidOf } from './guid';

export const typeName = (type: FixtureType | undefined): string =>
  type ? `${type.maker} ${type.name}` : 'an unknown type';

const folded = (type: FixtureType): string => typeName(type).normalize('NFC').toLowerCase();

/**
 * The type of the show that an incoming one is: with its id and its name, or with its name and its very modes. Two of one
 * name that are otherwise are two, as are two names under one id.
 */
export function sameType({ type: types }: Pick<ShowRecords, 'type'>, type: FixtureType): FixtureType | undefined {
  const named = types.filter((one) => folded(one) === folded(type) && one.unknown === type.unknown);
  return (
    named.find(({ id }) => guidOf(id) === guidOf(type.id)) ??
    named.find(({ modes }) => equal(modes, type.modes)) ??
    // What was made here or stands in the library has no id that others could know.
    (type.file === null ? named.find(({ file, modes }) => file === null && within(type, modes)) : undefined)
  );
}

/** Whether all modes that a table or a scene asks for are there just so. */
const within = (type: FixtureType, modes: FixtureType['modes']): boolean =>
  type.modes.every((mode) => modes.some((one) => equal(one, mode)));

/** The show’s type as it would be with what arrives: modes follow, and those that it alone has stay. */
export function mergedType(there: FixtureType, type: FixtureType): FixtureType {
  const coming = new Map(type.modes.map((mode) => [mode.name, mode]));
  const modes = [
    ...there.modes.map((mode) => coming.get(mode.name) ?? mode),
    ...type.modes.filter(({ name }) => !there.modes.some((mode) => mode.name === name)),
  ];
  const { pan, tilt, beam, field, kind, file, answers } = type;
  return {
    ...there,
    modes,
    kind: kind === 'other' ? there.kind : kind,
    answers: answers === 'not known' ? there.answers : answers,
    pan: pan || there.pan,
    tilt: tilt || there.tilt,
    beam: beam || there.beam,
    field: field || there.field,
    file: file ?? there.file,
  };
}

/** A type under an id that the show does not have yet. */
export const underFreeId = ({ type: types }: Pick<ShowRecords, 'type'>, type: FixtureType): FixtureType =>
  types.some(({ id }) => guidOf(id) === guidOf(type.id))
    ? { ...type, id: guidOf(`${type.id} ${typeName(type)} ${types.length}`) }
    : type;
