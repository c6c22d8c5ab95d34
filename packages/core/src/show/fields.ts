/** What the fields of records have in common: Yup rules whose messages are sentences to be shown. */
import { array, boolean, number, object, string, type AnySchema } from 'yup';
import { PORT_ADDRESS_LAST, SACN_LAST, SHOW_UNIVERSE_LAST } from '../address';

export const whole = (what: string, first: number, last: number) =>
  number()
    .strict()
    .typeError(`${what} must be a whole number.`)
    .integer(`${what} must be a whole number.`)
    .min(first, `${what} must be at least ${first}.`)
    .max(last, `${what} must be at most ${last}.`)
    .required(`${what} is missing.`);

export const text = (what: string, longest: number) =>
  string().strict().typeError(`${what} must be text.`).max(longest, `${what} may have at most ${longest} characters.`);

export const name = (what: string) => text(what, 120).trim().required(`${what} is missing.`);

export const metres = (what: string) =>
  number()
    .strict()
    .typeError(`${what} must be a number of metres.`)
    .min(-10_000, `${what} lies too far away.`)
    .max(10_000, `${what} lies too far away.`)
    .required(`${what} is missing.`);

export const oneOf = (what: string, words: readonly string[]) =>
  string()
    .strict()
    .oneOf(words, `${what} must be one of: ${words.join(', ')}.`)
    .required(`${what} is missing.`);

export const list = (what: string, of: AnySchema, most: number) =>
  array()
    .strict()
    .typeError(`${what} must be a list.`)
    .of(of)
    .max(most, `${what}: at most ${most}.`)
    .required(`${what} are missing.`);

export const row = {
  id: text('The id', 80).required('The id is missing.'),
  rev: whole('The revision', 0, Number.MAX_SAFE_INTEGER),
};
export const protocol = oneOf('The protocol', ['sacn', 'artnet']);
export const showUniverse = whole('The universe', 1, SHOW_UNIVERSE_LAST);
/** A number on the wire, as the field `protocol` beside it allows. */
export const wireNumber = whole('The wire number', 0, SACN_LAST).when('protocol', ([is], schema) =>
  is === 'artnet'
    ? schema.max(PORT_ADDRESS_LAST, `Art-Net universes run from 0 to ${PORT_ADDRESS_LAST}.`)
    : schema.min(1, 'sACN universes begin at 1.'),
);
export const wireUniverse = object({ protocol, number: wireNumber }).noUnknown();
export const placeId = text('The place', 80).nullable().defined('The place is missing.');
export const ipv4 = text('The address', 15).matches(
  /^$|^((25[0-5]|2[0-4]\d|1?\d?\d)(\.|$)){4}$/,
  'The address must be four numbers with dots, as in 10.0.0.21.',
);

export const flag = (what: string) =>
  boolean().strict().typeError(`${what} must be yes or no.`).required(`${what} is missing.`);
