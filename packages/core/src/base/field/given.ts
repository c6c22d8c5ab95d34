/** What the program itself gives out: the same fields, said as briefly as a report allows, and not checked again. */
import { mixed } from 'yup';
import { schemaOf, type Field, type JsonSchema, type Of } from './field';

const given = <T>(schema: JsonSchema, about: string): Field<T> => ({
  label: '',
  unit: '',
  about,
  rule: mixed(),
  schema: about === '' ? schema : { ...schema, description: about },
  column: 'json',
  nullable: false,
  optional: false,
});

export const integer = (about = ''): Field<number> => given({ type: 'integer' }, about);
export const real = (about = ''): Field<number> => given({ type: 'number' }, about);
export const words = (about = ''): Field<string> => given({ type: 'string' }, about);
export const yesNo = (about = ''): Field<boolean> => given({ type: 'boolean' }, about);
export const word = <const W extends string | number>(of: readonly W[], about = ''): Field<W> =>
  given({ type: typeof of[0] === 'number' ? 'integer' : 'string', enum: [...of] }, about);
/** What is said elsewhere: a record, or anything at all. */
export const plain = <T>(schema: JsonSchema, about = ''): Field<T> => given(schema, about);

export const listOf = <T>(of: Field<T>, about = ''): Field<readonly T[]> =>
  given({ type: 'array', items: of.schema }, about);
/** Values by name */
export const mapOf = <T>(of: Field<T>, about = ''): Field<Readonly<Record<string, T>>> =>
  given({ type: 'object', additionalProperties: of.schema }, about);
export const orNull = <T>(of: Field<T>): Field<T | null> => given({ anyOf: [of.schema, { type: 'null' }] }, of.about);
export const orNone = <T>(of: Field<T>): Field<T | undefined> & { optional: true } =>
  ({ ...of, optional: true }) as Field<T | undefined> & { optional: true };

type OptionalKeys<F> = { [K in keyof F]: F[K] extends { optional: true } ? K : never }[keyof F];
/** The plain object that some fields describe; those of {@link orNone} may be left out. */
export type ReportOf<F extends Readonly<Record<string, Field>>> = Omit<Of<F>, OptionalKeys<F>> & {
  readonly [K in OptionalKeys<F>]?: Of<F>[K];
};

/** An object of the given fields, under a name by which the published schemas refer to it. */
export const report = <F extends Readonly<Record<string, Field>>>(
  name: string,
  fields: F,
  about = '',
): Field<ReportOf<F>> & { readonly fields: F } => ({
  ...given<ReportOf<F>>({ ...schemaOf(fields), ...(name !== '' && { $id: name }) }, about),
  fields,
});
