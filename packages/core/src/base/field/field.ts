/**
 * What a field of a record is, said once: its type, its rule in sentences, its words and unit on a form, what it
 * is before anybody says more of it, its place in a table of the database, and its JSON Schema.
 */
import { array, boolean, lazy, number, object, string, type AnySchema } from 'yup';

export type Column = 'text' | 'integer' | 'double' | 'boolean' | 'json';
export type JsonSchema = Readonly<Record<string, unknown>>;

/** Made of the name under which the field stands */
export type Beside = (own: string) => JsonSchema;

export interface Field<T = unknown> {
  /** As forms and tables call it: “Start channel” */
  readonly label: string;
  /** “Hz”, “m”; empty if it has none */
  readonly unit: string;
  /** What it means, in a sentence or two; empty if the label says it */
  readonly about: string;
  /** Yup; its messages are sentences to be shown */
  readonly rule: AnySchema;
  readonly schema: JsonSchema;
  readonly column: Column;
  readonly nullable: boolean;
  readonly optional: boolean;
  /** Of an object: its parts */
  readonly parts?: Fields;
  /** Of a list: what each of its items is */
  readonly items?: Field;
  /** Fills in what older clients leave out, where the parts alone do not say it */
  readonly completes?: (given: unknown) => unknown;
  /** What JSON Schema says of the object that it stands in, where a rule looks at its neighbours */
  readonly beside?: readonly Beside[];
  /** Holds the type for TypeScript; nothing is ever here */
  readonly type?: T;
}

/** A field that has a value before anybody says more of it. */
export interface Begun<T> extends Field<T> {
  readonly initial: T;
}

export type Fields = Readonly<Record<string, Field>>;
export type ValueOf<F> = F extends Field<infer T> ? T : never;
/** The plain object that some fields describe. */
export type Of<F extends Fields> = { readonly [K in keyof F]: ValueOf<F[K]> };
export type InitialOf<F extends Fields> = {
  readonly [K in keyof F as F[K] extends Begun<unknown> ? K : never]: ValueOf<F[K]>;
};

/** How a sentence begins about the field, its unit, and its meaning. */
interface Words {
  /** “The rate”, where the label itself does not make it */
  readonly what?: string;
  readonly unit?: string;
  readonly about?: string;
}

const decapitalised = (label: string): string =>
  /^[A-Z][a-z’ ]/.test(label) ? `${label[0]!.toLowerCase()}${label.slice(1)}` : label;
export const whatOf = (label: string, words: Words = {}): string => words.what ?? `The ${decapitalised(label)}`;

function field<T>(
  label: string,
  words: Words | undefined,
  rule: AnySchema,
  schema: JsonSchema,
  column: Column,
): Field<T> {
  const { unit = '', about = '' } = words ?? {};
  return {
    label,
    unit,
    about,
    rule,
    schema: about === '' ? schema : { ...schema, description: about },
    column,
    nullable: false,
    optional: false,
  };
}

/** A whole number within its ends, both included. */
export function whole(label: string, first: number, last: number, words?: Words): Field<number> {
  const what = whatOf(label, words);
  const rule = number()
    .strict()
    .typeError(`${what} must be a whole number.`)
    .integer(`${what} must be a whole number.`)
    .min(first, `${what} must be at least ${first}.`)
    .max(last, `${what} must be at most ${last}.`)
    .required(`${what} is missing.`);
  return field(label, words, rule, { type: 'integer', minimum: first, maximum: last }, 'integer');
}

/** Text of at most `longest` characters; may be empty. */
export function text(label: string, longest: number, words?: Words): Field<string> {
  const what = whatOf(label, words);
  const rule = string()
    .strict()
    .typeError(`${what} must be text.`)
    .max(longest, `${what} may have at most ${longest} characters.`)
    .test('whole', `${what} holds a character that is none.`, (value) => value == null || isWellFormed(value))
    .defined(`${what} is missing.`)
    .nonNullable(`${what} is missing.`);
  return field(label, words, rule, { type: 'string', maxLength: longest, pattern: '^[^\\u0000]*$' }, 'text');
}

/** Neither NUL, which no database keeps, nor half of a character. */
const isWellFormed = (value: string): boolean =>
  !value.includes('\0') && !/[\ud800-\udbff](?![\udc00-\udfff])|(?<![\ud800-\udbff])[\udc00-\udfff]/.test(value);

/** Text that is not empty. */
export function name(label: string, words?: Words & { longest?: number }): Field<string> {
  const what = whatOf(label, words);
  const longest = words?.longest ?? 120;
  const rule = (text(label, longest, words).rule as ReturnType<typeof string>)
    .trim(`${what} begins or ends with a space.`)
    .required(`${what} is missing.`);
  return field(
    label,
    words,
    rule,
    { type: 'string', minLength: 1, maxLength: longest, pattern: '^\\S(?:[^\\u0000]*\\S)?$' },
    'text',
  );
}

/** Text of a certain form. */
export function pattern(label: string, longest: number, form: RegExp, sentence: string, words?: Words): Field<string> {
  const rule = (text(label, longest, words).rule as ReturnType<typeof string>).matches(form, sentence);
  return field(label, words, rule, { type: 'string', maxLength: longest, pattern: form.source }, 'text');
}

/** Id of another record, which must be there (see `edit/integrity`). */
export function reference(label: string, words?: Words): Field<string> {
  const what = whatOf(label, words);
  const rule = (text(label, 80, words).rule as ReturnType<typeof string>).required(`${what} is missing.`);
  return field(label, words, rule, { type: 'string', minLength: 1, maxLength: 80 }, 'text');
}

export function flag(label: string, words?: Words): Field<boolean> {
  const what = whatOf(label, words);
  const rule = boolean().strict().typeError(`${what} must be yes or no.`).required(`${what} is missing.`);
  return field(label, words, rule, { type: 'boolean' }, 'boolean');
}

export function oneOf<const W extends string | number>(
  label: string,
  of: readonly W[],
  words?: Words & { sentence?: string },
): Field<W> {
  const what = whatOf(label, words);
  const sentence = words?.sentence ?? `${what} must be one of: ${of.join(', ')}.`;
  const numeric = typeof of[0] === 'number';
  const base: AnySchema = numeric ? number().strict() : string().strict();
  const rule = base
    .oneOf([...of], sentence)
    .defined(`${what} is missing.`)
    .nonNullable(`${what} is missing.`);
  return field(
    label,
    words,
    rule,
    { type: numeric ? 'integer' : 'string', enum: [...of] },
    numeric ? 'integer' : 'text',
  );
}

/** A number that need not be whole. */
export function measure(
  label: string,
  first: number,
  last: number,
  words: Words & { type: string; below: string; above: string },
): Field<number> {
  const what = whatOf(label, words);
  const rule = number()
    .strict()
    .typeError(`${what} must be ${words.type}.`)
    .min(first, `${what} ${words.below}`)
    .max(last, `${what} ${words.above}`)
    .required(`${what} is missing.`);
  return field(label, words, rule, { type: 'number', minimum: first, maximum: last }, 'double');
}

const far = { type: 'a number of metres', below: 'lies too far away.', above: 'lies too far away.', unit: 'm' };
export const metres = (label: string, words?: Words): Field<number> =>
  measure(label, -10_000, 10_000, { ...far, what: label, ...words });

export function list<T>(label: string, of: Field<T>, most: number, words?: Words): Field<readonly T[]> {
  const what = whatOf(label, words);
  const rule = array()
    .strict()
    .typeError(`${what} must be a list.`)
    .of(of.rule)
    .max(most, `${what}: at most ${most}.`)
    .required(`${what} are missing.`);
  return {
    ...field<readonly T[]>(label, words, rule, { type: 'array', maxItems: most, items: of.schema }, 'json'),
    items: of,
  };
}

export const atLeastOne = <T>(of: Field<readonly T[]>, sentence: string): Field<readonly T[]> => ({
  ...of,
  rule: (of.rule as ReturnType<typeof array>).min(1, sentence),
  schema: { ...of.schema, minItems: 1 },
});

export function schemaOf(fields: Fields): JsonSchema {
  const beside = Object.entries(fields).flatMap(([key, one]) => one.beside?.map((says) => says(key)) ?? []);
  return {
    type: 'object',
    properties: Object.fromEntries(Object.entries(fields).map(([key, one]) => [key, one.schema])),
    required: Object.keys(fields).filter((key) => !fields[key]!.optional),
    additionalProperties: false,
    ...(beside.length > 0 && { allOf: beside }),
  };
}

/** An object within a record; `T` may make some of its fields optional. */
export function shape<F extends Fields, T = Of<F>>(label: string, fields: F, words?: Words): Field<T> & { fields: F } {
  const what = whatOf(label, words);
  const rule = object(Object.fromEntries(Object.entries(fields).map(([key, one]) => [key, one.rule])))
    .noUnknown(({ unknown }: { unknown: string }) => `${what} has no part “${unknown}”.`)
    .typeError(`${what} is not as it should be.`)
    .required(`${what} is missing.`);
  return { ...field<T>(label, words, rule, schemaOf(fields), 'json'), fields, parts: fields };
}

/** One of several shapes, told apart by their `kind`. */
export function choice<V extends Readonly<Record<string, Fields>>>(
  label: string,
  variants: V,
  words?: Words,
): Field<{ [K in keyof V]: { readonly kind: K } & Of<V[K]> }[keyof V]> {
  const kinds = Object.keys(variants);
  const kind = oneOf(label, kinds, words);
  const rules = Object.fromEntries(
    Object.entries(variants).map(([one, fields]) => [one, shape(label, { kind, ...fields }, words).rule]),
  );
  const rule = lazy((value: unknown) => {
    const said = (value as { kind?: unknown } | null)?.kind;
    return typeof said === 'string' && Object.hasOwn(rules, said) ? rules[said]! : shape(label, { kind }, words).rule;
  });
  const schemas = Object.entries(variants).map(([one, fields]) =>
    schemaOf({ kind: { ...kind, schema: { const: one } }, ...fields }),
  );
  return field(label, words, rule as unknown as AnySchema, { oneOf: schemas }, 'json');
}

/** May be null. */
export function nullable<T>(of: Field<T>): Field<T | null> {
  const { type } = of.schema;
  return {
    ...of,
    nullable: true,
    rule: of.rule.nullable().defined(`${whatOf(of.label)} is missing.`) as AnySchema,
    schema:
      typeof type === 'string' && !('enum' in of.schema)
        ? { ...of.schema, type: [type, 'null'] }
        : { oneOf: [of.schema, { type: 'null' }] },
  } as Field<T | null>;
}

/** May be left out. */
export const optional = <T>(of: Field<T>): Field<T | undefined> =>
  ({ ...of, optional: true, rule: of.rule.notRequired().nonNullable() as AnySchema }) as Field<T | undefined>;

export const begun = <T>(of: Field<T>, initial: NoInfer<T>): Begun<T> => ({ ...of, initial });

/**
 * A further rule over a field and its neighbours; `holds` gets the value and the object that it stands in. `schema` says
 * the same of that object.
 */
export const must = <T>(
  of: Field<T>,
  word: string,
  sentence: string,
  holds: (value: T, beside: Readonly<Record<string, unknown>>) => boolean,
  schema?: Beside,
): Field<T> => ({
  ...of,
  ...(schema && { beside: [...(of.beside ?? []), schema] }),
  rule: of.rule.test(word, sentence, (value: T, { parent }: { parent: Record<string, unknown> }) =>
    holds(value, parent),
  ),
});

/** In JSON Schema: where the neighbours are so, these parts are so, and else others. */
export const when =
  (neighbours: JsonSchema, then: Beside, otherwise?: Beside): Beside =>
  (own) => ({
    if: { properties: neighbours },
    then: { properties: then(own) },
    ...(otherwise && { else: { properties: otherwise(own) } }),
  });

/** What some fields are before anybody says more of them. */
export const initialOf = <F extends Fields>(fields: F): InitialOf<F> =>
  Object.fromEntries(
    Object.entries(fields).flatMap(([key, one]) => ('initial' in one ? [[key, (one as Begun<unknown>).initial]] : [])),
  ) as InitialOf<F>;

/**
 * What was given, with every field that it leaves out at its initial value, so that what older clients send stays valid.
 * What is wrong stays as it is, for the rules to refuse.
 */
export function completed(of: Field, given: unknown): unknown {
  if (of.completes) return of.completes(given);
  if (of.items && Array.isArray(given)) return given.map((one) => completed(of.items!, one));
  return of.parts && typeof given === 'object' && given !== null && !Array.isArray(given)
    ? completedParts(of.parts, given as Readonly<Record<string, unknown>>)
    : given;
}

/** The same of an object with these parts. */
export function completedParts(
  parts: Fields,
  given: Readonly<Record<string, unknown>>,
): Readonly<Record<string, unknown>> {
  let whole = given;
  for (const [key, part] of Object.entries(parts)) {
    const value = given[key];
    const missing = value === undefined && !part.optional && 'initial' in part;
    const now = missing ? (part as Begun<unknown>).initial : completed(part, value);
    if (now !== value) whole = { ...whole, [key]: now };
  }
  return whole;
}

/** A field of another type than its parts come to: where some of them may be left out, say. */
export const plainOf = <T>(of: Field<never> | Field): Field<T> => of as Field<T>;
