/** A kind of record: its fields, and what it is called by people and by the database. */
import { object, ValidationError, type AnySchema } from 'yup';
import { ok, refuseAll, type Checked } from '../result';
import { schemaOf, text, whole, type Fields, type JsonSchema, type Of } from '../field';

/** What every record has. */
export interface Row {
  readonly id: string;
  /** Number of the edit that last changed this record; 0 before it is stored. */
  readonly rev: number;
}

const ROW: Fields = {
  id: { ...text('Id', 80), rule: text('Id', 80).rule.required('The id is missing.') },
  rev: whole('Revision', 0, Number.MAX_SAFE_INTEGER, { about: 'Number of the edit that last changed this record.' }),
};

export interface KindOf<F extends Fields = Fields> {
  /** Beside id and rev */
  readonly fields: F;
  /** “lamp” and “lamps”, as sentences say them */
  readonly one: string;
  readonly many: string;
  /** Its table in the database */
  readonly table: string;
  /** Its name in the published schemas */
  readonly schemaName: string;
  readonly rule: AnySchema;
  readonly schema: JsonSchema;
}

export type RecordFrom<K extends KindOf> = Row & Of<K['fields']>;

type Names = Pick<KindOf, 'one' | 'many' | 'table' | 'schemaName'>;

export const kindOf = <F extends Fields>(names: Names, fields: F): KindOf<F> => {
  const all = { ...ROW, ...fields };
  const rules = Object.fromEntries(Object.entries(all).map(([key, { rule }]) => [key, rule]));
  return {
    ...names,
    fields,
    rule: object(rules).noUnknown(`A ${names.one} has no such part.`),
    schema: schemaOf(all),
  };
};

/** Most faults that are told of one input. */
const MOST_FAULTS = 20;

/** Validates against a Yup schema; never throws for bad input. */
export function checkWith<T>(schema: { validateSync: AnySchema['validateSync'] }, input: unknown): Checked<T> {
  try {
    return ok(schema.validateSync(input, { abortEarly: false, strict: true }) as T);
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error;
    const inner = error.inner.length > 0 ? error.inner : [error];
    return refuseAll(inner.slice(0, MOST_FAULTS).map((fault) => ({ at: fault.path ?? '', why: fault.message })));
  }
}
