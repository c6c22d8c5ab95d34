/** A kind of record: its fields, and what it is called by people and by the database. */
import { object, ValidationError, type AnySchema } from 'yup';
import { ok, refuseAll, type Checked } from '../../base/result';
import { schemaOf, text, whole, type Fields, type JsonSchema, type Of } from '../../base/field';

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
  /** With id and rev */
  readonly parts: Fields;
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
    parts: all,
    rule: object(rules).noUnknown(({ unknown }: { unknown: string }) => `A ${names.one} has no part “${unknown}”.`),
    schema: schemaOf(all),
  };
};

/** Single values that were found right, by rule; most records of a show share most of theirs. */
const rightValues = new WeakMap<AnySchema, Set<unknown>>();
const MOST_VALUES = 4096;

function isRight(rule: AnySchema, value: unknown): boolean {
  const single = typeof value !== 'object' || value === null;
  let known = rightValues.get(rule);
  if (!known) rightValues.set(rule, (known = new Set()));
  if (single && known.has(value)) return true;
  try {
    rule.validateSync(value, { strict: true });
  } catch {
    // Wrong, or right only beside its neighbours: the whole record has to be looked at.
    return false;
  }
  if (single && known.size < MOST_VALUES) known.add(value);
  return true;
}

/**
 * Whether a record is right, found quickly part by part. False where it is not, or where only a look at the whole,
 * with {@link checkWith}, can tell; then the faults are told there.
 */
export function isRightAtSight({ parts }: KindOf, record: unknown): boolean {
  if (typeof record !== 'object' || record === null) return false;
  const given = record as Record<string, unknown>;
  for (const key in given) if (!(key in parts)) return false;
  for (const key in parts) if (!isRight(parts[key]!.rule, given[key])) return false;
  return true;
}

/** Most faults that are told of one input. */
export const MOST_FAULTS = 20;

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
